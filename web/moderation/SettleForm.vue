<script setup lang="ts">
import { settleWork, type ComparedWork, type Moderation } from '#contract/moderation';
import { formatHundredths, type Criterion, type Score, type Scores } from '#core/grading';
import { differing } from '#core/moderation';
import { computed, ref } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';
import { scoreWithPoints } from './words.ts';

/** What both gave, criterion by criterion, and what it shall be. */
const props = defineProps<{ moderation: Moderation; compared: ComparedWork }>();
const emit = defineEmits<{ settled: [] }>();

const { rubric } = props.moderation;
const apart = computed(
  () => new Set(differing(rubric, { first: props.compared.first, second: props.compared.secondScores })),
);
/** What is chosen; where both say the same it is that, and where they differ nobody has chosen yet. */
const chosen = ref<Record<string, string | null>>(
  Object.fromEntries(
    rubric.map(({ id }) => {
      const { settled, first } = props.compared;
      const score = settled ? settled.scores[id] : apart.value.has(id) ? undefined : first[id];
      return [id, score ? JSON.stringify(score) : null];
    }),
  ),
);
const why = ref(props.compared.settled?.why ?? '');
const { busy, problem, attempt } = useDeed();

function choicesOf(criterion: Criterion): { title: string; value: string }[] {
  const { first, secondScores } = props.compared;
  const typed = [first[criterion.id], secondScores[criterion.id]].filter(
    (score): score is { points: number } => score !== undefined && 'points' in score,
  );
  const scores: Score[] = [...criterion.levels.map(({ id }) => ({ level: id })), ...typed, { notAssessed: true }];
  return [...new Map(scores.map((score) => [JSON.stringify(score), score]))].map(([value, score]) => ({
    title: 'points' in score ? `${formatHundredths(score.points)} points` : scoreWithPoints(criterion, score),
    value,
  }));
}

function takeAll(scores: Scores): void {
  chosen.value = Object.fromEntries(rubric.map(({ id }) => [id, JSON.stringify(scores[id])]));
}

const open = computed(() => rubric.filter(({ id }) => (chosen.value[id] ?? null) === null).map(({ title }) => title));

async function settle(): Promise<void> {
  problem.value = undefined;
  if (open.value.length > 0) return void (problem.value = `Choose what it shall be for ${open.value.join(', ')}.`);
  if (why.value.trim() === '') return void (problem.value = 'Say in a few words why, so that it can be read later.');
  await attempt(async () => {
    const scores = Object.fromEntries(rubric.map(({ id }) => [id, JSON.parse(chosen.value[id]!) as Score]));
    const params = { moderation: props.moderation.id, work: props.compared.work };
    await call(settleWork, { params, body: { scores, why: why.value } });
    emit('settled');
  });
}
</script>

<template>
  <form @submit.prevent="settle">
    <table class="listing">
      <thead>
        <tr>
          <th scope="col">Criterion</th>
          <th scope="col">{{ compared.firstMarkers.join(', ') || 'First marker' }}</th>
          <th scope="col">{{ moderation.marker }}</th>
          <th scope="col">Shall be</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="criterion in rubric" :key="criterion.id" :class="{ apart: apart.has(criterion.id) }">
          <th scope="row">{{ criterion.title }} <span v-if="apart.has(criterion.id)" class="mark">differs</span></th>
          <td>{{ scoreWithPoints(criterion, compared.first[criterion.id]) }}</td>
          <td>{{ scoreWithPoints(criterion, compared.secondScores[criterion.id]) }}</td>
          <td>
            <v-select
              :model-value="chosen[criterion.id] ?? null"
              class="choice"
              density="compact"
              hide-details
              placeholder="Choose"
              persistent-placeholder
              :aria-label="`${criterion.title} shall be`"
              :items="choicesOf(criterion)"
              @update:model-value="chosen[criterion.id] = $event"
            />
          </td>
        </tr>
      </tbody>
    </table>
    <div class="row">
      <v-btn size="small" variant="outlined" @click="takeAll(compared.first)">All as the first marker</v-btn>
      <v-btn size="small" variant="outlined" @click="takeAll(compared.secondScores)">All as the second marker</v-btn>
    </div>
    <v-textarea
      v-model="why"
      label="Why"
      rows="2"
      auto-grow
      density="compact"
      hide-details
      maxlength="1000"
      class="why"
    />
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <p v-if="compared.returned && !compared.settled" class="fine">
      This work has been returned. Its grade stays as it is until you apply the settled levels.
    </p>
    <v-btn type="submit" variant="flat" color="primary" :loading="busy">{{
      compared.settled ? 'Settle anew' : 'Settle'
    }}</v-btn>
  </form>
</template>

<style scoped>
form {
  display: grid;
  gap: 10px;
  justify-items: start;
}
table {
  width: 100%;
}
tbody :is(th, td) {
  vertical-align: middle;
}
.apart th {
  font-weight: 650;
}
.mark {
  padding: 0 6px;
  border: 1px solid var(--ink);
  border-radius: 8px;
  font-size: 12px;
  font-weight: 400;
}
.choice {
  min-width: 190px;
}
.why {
  width: min(560px, 100%);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
