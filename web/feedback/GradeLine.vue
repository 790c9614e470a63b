<script setup lang="ts">
import { formatHundredths, type Grade, type Marking } from '#core/grading';
import { computed } from 'vue';

/** A result, with the sentence of arithmetic behind it. */
const props = defineProps<{ grade: Grade; shown?: Marking['shown'] }>();

const points = computed(
  () => `${formatHundredths(props.grade.points)} of ${formatHundredths(props.grade.possible)} points`,
);
const percent = computed(() => `${formatHundredths(props.grade.percentage)} %`);
/** What the assignment calls its results by comes first, and large. */
const first = computed(() => {
  const { shown = 'level' } = props;
  if (shown === 'points') return points.value;
  return shown === 'percent' ? percent.value : props.grade.grade;
});
const others = computed(() =>
  [props.grade.grade, points.value, percent.value].filter((words) => words && words !== first.value),
);
</script>

<template>
  <div class="figures">
    <p class="grade">
      <strong v-if="first">{{ first }}</strong>
      <span v-for="words in others" :key="words">{{ words }}</span>
    </p>
    <details v-if="grade.explanation">
      <summary>How this adds up</summary>
      <p>{{ grade.explanation }}</p>
    </details>
  </div>
</template>

<style scoped>
.grade {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 4px 12px;
}
strong {
  font-family: var(--serif);
  font-size: 22px;
  font-weight: 560;
  flex-basis: 100%;
}
details {
  margin-top: 4px;
  color: var(--quiet);
  font-size: 13px;
}
summary {
  padding: 4px 0;
  cursor: pointer;
}
</style>
