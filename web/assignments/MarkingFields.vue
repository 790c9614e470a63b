<script setup lang="ts">
import { formatHundredths, parseHundredths, type Band, type Marking } from '#core/grading';
import { setAssignment } from '#contract/assignments';
import { readRubric, setScale } from '#contract/rubrics';
import { computed, ref, watch } from 'vue';
import { mdiClose } from '@mdi/js';
import { call } from '../session/api.ts';
import ToldNote from '../shell/ToldNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { useTold } from '../shell/use-told.ts';
import { bandsOf, bandWords, SCALES, scaleFault, type BandDraft } from './scale-draft.ts';

/** How an assignment is graded: what its results are called, what lateness costs, and its scale. */
const props = defineProps<{ assignment: string; marking: Marking; questions: number }>();
const emit = defineEmits<{ changed: [] }>();

const SHOWN = [
  { title: 'a level of the scale', value: 'level' },
  { title: 'points', value: 'points' },
  { title: 'per cent', value: 'percent' },
] as const;
const LATE = { grace: 0, unit: 'day', percent: 500, of: 'possible', floor: 0 } as const;

const { value: kept, load } = useLoaded(() => call(readRubric, { params: { assignment: props.assignment } }));
const bands = ref<BandDraft[]>([]);
watch(kept, (now) => now && (bands.value = bandWords(now.scale)));
const { told, attempt } = useTold();
const possible = ref('');
const late = ref({ grace: '', percent: '', floor: '' });
watch(
  () => props.marking,
  (now, before) => {
    const words = (value: number | null | undefined): string =>
      value === null || value === undefined ? '' : formatHundredths(value);
    // What is being typed stays.
    if (possible.value === words(before?.possible)) possible.value = words(now.possible);
    if (JSON.stringify(before?.late) === JSON.stringify(now.late)) return;
    late.value = {
      grace: now.late ? String(now.late.grace) : '',
      percent: words(now.late?.percent),
      floor: words(now.late?.floor),
    };
  },
  { immediate: true },
);

const set = (change: Partial<Marking>): Promise<void> =>
  attempt(async () => {
    const body = { marking: { ...props.marking, ...change } };
    await call(setAssignment, { params: { assignment: props.assignment }, body });
    emit('changed');
    return 'Saved.';
  });

function leavePossible(): void {
  const points = possible.value.trim() === '' ? null : parseHundredths(possible.value);
  if (points === props.marking.possible) return;
  if (points === undefined || (points !== null && (points < 1 || points > 1_000_00)))
    told.value = { text: '“Out of” is a number from 0.01 to 1000, or nothing.', wrong: true };
  else void set({ possible: points });
}

function leaveLate(): void {
  const rule = props.marking.late;
  if (!rule) return;
  const [grace, percent, floor] = [late.value.grace, late.value.percent, late.value.floor].map(parseHundredths);
  const isShare = (value: number | undefined): value is number => value !== undefined && value >= 0 && value <= 100_00;
  if (grace === undefined || grace < 0 || grace % 100 !== 0 || grace > 40_000_00)
    told.value = { text: 'The minutes that cost nothing are a whole number.', wrong: true };
  else if (!isShare(percent) || !isShare(floor))
    told.value = { text: 'Per cent are a number from 0 to 100.', wrong: true };
  else if (grace !== rule.grace * 100 || percent !== rule.percent || floor !== rule.floor)
    void set({ late: { ...rule, grace: grace / 100, percent, floor } });
}

/** Nothing is scored on its own. */
const whole = computed(() => props.questions === 0 && kept.value?.rubric.length === 0);
const scaleChanged = computed(
  () => kept.value !== undefined && JSON.stringify(bands.value) !== JSON.stringify(bandWords(kept.value.scale)),
);
const fault = computed(() => (scaleChanged.value ? scaleFault(bands.value) : undefined));
const take = (scale: readonly Band[]): void => void (bands.value = bandWords(scale));

const keepScale = (): Promise<void> =>
  attempt(async () => {
    await call(setScale, { params: { assignment: props.assignment }, body: { scale: bandsOf(bands.value) } });
    await load();
    return 'Saved.';
  });
</script>

<template>
  <section class="marking" aria-labelledby="marking">
    <h2 id="marking">How it is graded</h2>
    <div class="row">
      <v-select
        :model-value="marking.shown"
        :items="[...SHOWN]"
        density="compact"
        hide-details
        class="field"
        label="A result is"
        @update:model-value="set({ shown: $event })"
      />
      <v-select
        :model-value="marking.decimals"
        :items="[0, 1, 2]"
        density="compact"
        hide-details
        class="small"
        label="Decimals"
        @update:model-value="set({ decimals: $event })"
      />
      <v-text-field
        v-model="possible"
        density="compact"
        hide-details
        inputmode="decimal"
        class="small"
        label="Out of"
        @blur="leavePossible"
        @keydown.enter="leavePossible"
      />
      <v-checkbox
        label="Half steps between levels"
        :model-value="marking.halfSteps"
        @update:model-value="set({ halfSteps: $event === true })"
      />
    </div>
    <p class="fine">
      {{
        whole
          ? 'Without a rubric and questions, “out of” is what you give points for: the whole work.'
          : '“Out of” is for criteria with weights; otherwise the points are added up. Rounding is half up, once, at the end.'
      }}
    </p>
    <div class="row">
      <v-checkbox
        label="Coming late costs"
        :model-value="marking.late !== null"
        @update:model-value="set({ late: $event ? LATE : null })"
      />
      <template v-if="marking.late">
        <v-text-field
          v-model="late.percent"
          density="compact"
          hide-details
          inputmode="decimal"
          suffix="%"
          class="small"
          label="For each"
          @blur="leaveLate"
          @keydown.enter="leaveLate"
        />
        <v-select
          :model-value="marking.late.unit"
          :items="[
            { title: 'begun hour', value: 'hour' },
            { title: 'begun day', value: 'day' },
          ]"
          density="compact"
          hide-details
          class="field"
          aria-label="Hour or day"
          @update:model-value="set({ late: { ...marking.late, unit: $event } })"
        />
        <v-select
          :model-value="marking.late.of"
          :items="[
            { title: 'of what is possible', value: 'possible' },
            { title: 'of what was earned', value: 'earned' },
          ]"
          density="compact"
          hide-details
          class="field"
          aria-label="Of which points"
          @update:model-value="set({ late: { ...marking.late, of: $event } })"
        />
        <v-text-field
          v-model="late.grace"
          density="compact"
          hide-details
          inputmode="numeric"
          suffix="min"
          class="small"
          label="Free"
          @blur="leaveLate"
          @keydown.enter="leaveLate"
        />
        <v-text-field
          v-model="late.floor"
          density="compact"
          hide-details
          inputmode="decimal"
          suffix="%"
          class="small"
          label="Not below"
          @blur="leaveLate"
          @keydown.enter="leaveLate"
        />
      </template>
      <span v-else class="fine">nothing</span>
    </div>
    <form class="scale" @submit.prevent="!fault && keepScale()">
      <div class="row">
        <span>Scale</span>
        <v-btn v-for="scale in SCALES" :key="scale.title" size="small" @click="take(scale.scale)">{{
          scale.title
        }}</v-btn>
      </div>
      <ol>
        <li v-for="(band, index) in bands" :key="index" class="row">
          <v-text-field
            v-model="band.grade"
            density="compact"
            hide-details
            maxlength="60"
            class="field"
            :aria-label="`Name of step ${index + 1}`"
          />
          <span>from</span>
          <v-text-field
            v-model="band.from"
            density="compact"
            hide-details
            inputmode="decimal"
            suffix="%"
            class="small"
            :aria-label="`Step ${index + 1} from`"
          />
          <v-btn :icon="mdiClose" size="28" :aria-label="`Remove step ${index + 1}`" @click="bands.splice(index, 1)" />
        </li>
      </ol>
      <div class="row">
        <v-btn size="small" :disabled="bands.length >= 30" @click="bands.push({ grade: '', from: '' })"
          >Add a step</v-btn
        >
        <v-btn
          v-if="scaleChanged"
          type="submit"
          size="small"
          variant="flat"
          color="primary"
          :disabled="fault !== undefined"
          >Keep the scale</v-btn
        >
        <span v-if="fault" class="refused" role="alert">{{ fault }}</span>
      </div>
    </form>
    <ToldNote :told="told" />
  </section>
</template>

<style scoped>
.marking {
  margin-top: 32px;
}
h2 {
  margin-bottom: 8px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 12px;
  align-items: center;
  margin: 6px 0;
}
.field {
  flex: 0 0 200px;
}
.small {
  flex: 0 0 120px;
}
ol {
  list-style: none;
}
</style>
