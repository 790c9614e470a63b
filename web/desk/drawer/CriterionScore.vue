<script setup lang="ts">
import { bestOf, formatHundredths, halfSteps, type Score } from '#core/grading';
import type { Remark } from '#contract/remarks';
import type { Feedback } from '#contract/submissions';
import { mdiMicrophoneOutline, mdiPencilOutline } from '@mdi/js';
import { computed, ref } from 'vue';
import { useRemarkName } from '../../feedback/use-anchor-name.ts';
import { useDesk } from '../desk.ts';
import PointsField from './PointsField.vue';
import ScorePart from './ScorePart.vue';

/** One criterion with its levels, and what was said about it. */
const props = defineProps<{
  criterion: Feedback['rubric'][number];
  score: Score | null;
  remarks: readonly Remark[];
  halves: boolean;
  disabled: boolean;
}>();
const emit = defineEmits<{ score: [score: Score | null] }>();

const desk = useDesk();
const other = ref(false);
const nameOf = useRemarkName();

/** What can be chosen, lowest first where there are half steps; otherwise as the rubric has it. */
const steps = computed(() => {
  const levels = props.criterion.levels.map(({ id, title, description, points }) => ({
    ...{ key: id, title, description, points },
    score: { level: id } as Score,
  }));
  if (!props.halves) return levels;
  const halves = halfSteps(props.criterion).map((points) => ({
    ...{ key: `half ${points}`, title: 'In between', description: '', points },
    score: { points } as Score,
  }));
  const falling = levels.length > 1 && levels[0]!.points > levels.at(-1)!.points;
  return [...levels, ...halves].sort((a, b) => (falling ? b.points - a.points : a.points - b.points));
});
const given = computed(() => props.score);
const typed = computed(() => (given.value && 'points' in given.value ? given.value.points : null));
const notAssessed = computed(() => given.value !== null && 'notAssessed' in given.value);
const chosen = computed(() => {
  if (!given.value) return null;
  if ('level' in given.value) return given.value.level;
  return steps.value.find(({ score }) => 'points' in score && score.points === typed.value)?.key ?? null;
});

function choose(key: string | null): void {
  const step = steps.value.find((one) => one.key === key);
  if (step) emit('score', step.score);
}

/** A digit chooses a step, and leads on to the next that is not scored. */
function press(event: KeyboardEvent): void {
  const step = steps.value[Number(event.key) - 1];
  const inField = event.target instanceof HTMLInputElement && event.target.type !== 'radio';
  if (!step || inField || event.ctrlKey || event.altKey || event.metaKey) return;
  event.preventDefault();
  event.stopPropagation();
  emit('score', step.score);
  desk.score(props.criterion.id);
}

const weight = computed(() => {
  const { weight, bonus } = props.criterion;
  return bonus ? 'bonus' : weight === undefined ? '' : `${formatHundredths(weight)} %`;
});
</script>

<template>
  <ScorePart
    :title="criterion.title"
    :about="criterion.description"
    :disabled="disabled"
    :open="score === null && !criterion.bonus"
    :data-criterion="criterion.id"
    @keydown="press"
  >
    <p v-if="weight" class="figures fine">{{ weight }}</p>
    <v-radio-group :model-value="chosen" :name="criterion.id" :disabled="disabled" @update:model-value="choose">
      <v-radio v-for="step in steps" :key="step.key" :value="step.key" :class="{ chosen: step.key === chosen }">
        <template #label>
          <span class="level">{{ step.title }}</span>
          <span class="figures points">{{ formatHundredths(step.points) }}</span>
          <span v-if="step.description" class="description">{{ step.description }}</span>
        </template>
      </v-radio>
    </v-radio-group>
    <p v-if="notAssessed" class="fine">Not assessed: left out of the result.</p>
    <PointsField
      v-if="!disabled && (other || (typed !== null && chosen === null))"
      :label="`Points for ${criterion.title}`"
      :points="typed"
      :most="bestOf(criterion)"
      @points="emit('score', $event === null ? null : { points: $event })"
    >
      <v-btn v-if="!notAssessed" size="x-small" variant="outlined" @click="emit('score', { notAssessed: true })"
        >Not assessed <span class="visually-hidden">: {{ criterion.title }}</span></v-btn
      >
    </PointsField>
    <p v-if="remarks.length > 0" class="remarks">
      <button v-for="remark in remarks" :key="remark.id" type="button" @click="desk.goTo(remark.id)">
        {{ nameOf(remark) }}
      </button>
    </p>
    <div v-if="!disabled" class="more">
      <button v-if="score" type="button" class="clear" @click="emit('score', null)">
        Clear <span class="visually-hidden">the score for {{ criterion.title }}</span>
      </button>
      <button type="button" :aria-expanded="other" @click="other = !other">
        Other <span class="visually-hidden">score for {{ criterion.title }}</span>
      </button>
      <v-btn
        :icon="mdiMicrophoneOutline"
        size="22"
        :aria-label="`Speak about ${criterion.title}; press again to end`"
        title="Speak about this criterion"
        @click="desk.speakAbout(criterion.id)"
      />
      <v-btn
        :icon="mdiPencilOutline"
        size="22"
        :aria-label="`Write about ${criterion.title}`"
        title="Write about this criterion"
        @click="desk.writeAbout(criterion.id)"
      />
    </div>
  </ScorePart>
</template>

<style scoped>
.v-radio {
  align-items: start;
  border-radius: 3px;
}
.v-radio :deep(.v-label) {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 6px;
  width: 100%;
  padding: 5px 6px 5px 0;
  opacity: 1;
}
.v-radio :deep(.v-selection-control__wrapper) {
  height: 28px;
}
.chosen {
  background: color-mix(in srgb, var(--ink) 8%, transparent);
}
.chosen .level {
  font-weight: 600;
}
.description {
  display: none;
  grid-column: 1 / -1;
  color: var(--quiet);
  font-size: 13px;
}
.chosen .description,
.v-radio:hover .description,
.v-radio:focus-within .description {
  display: block;
}
.points {
  color: var(--quiet);
}
.more {
  display: flex;
  align-items: center;
  gap: 10px;
  margin-top: 2px;
}
.more button:not(.v-btn),
.remarks button {
  color: var(--quiet);
  font-size: 13px;
  text-decoration: underline;
}
.remarks button {
  display: block;
  max-width: 100%;
  overflow: hidden;
  text-align: left;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
