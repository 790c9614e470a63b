<script setup lang="ts">
import { markingSeconds } from '#core/charts';
import { statisticsOf } from '#core/grading';
import type { ChartWork } from '#contract/charts';
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import ChartFrame from './ChartFrame.vue';
import WorkLink from './WorkLink.vue';

/** How long each work took to mark, the longest first. */
const props = defineProps<{ works: readonly ChartWork[] }>();

const [WIDTH, ROW, LABEL] = [520, 18, 150];
const timed = computed(() =>
  props.works
    .flatMap((work) => {
      const seconds = markingSeconds(work.moments);
      return seconds === undefined ? [] : [{ work, minutes: seconds / 60 }];
    })
    .toSorted((a, b) => b.minutes - a.minutes),
);
const x = computed(() => scaleLinear([0, Math.max(1, timed.value[0]?.minutes ?? 1)], [LABEL, WIDTH - 60]));
const words = (minutes: number): string => `${minutes.toFixed(1)} min`;
const says = computed(() => {
  const { n, median } = statisticsOf(timed.value.map(({ minutes }) => minutes));
  const all = timed.value.reduce((sum, { minutes }) => sum + minutes, 0);
  return n === 0
    ? 'No work has been marked in one go yet.'
    : `${words(median!)} for the one in the middle, ${Math.round(all)} minutes for all ${n}; pauses of more than ten minutes do not count.`;
});
const rows = computed(() =>
  timed.value.map(({ work, minutes }) => ({
    cells: [work.student, words(minutes)],
    to: { name: 'desk', params: { submission: work.submission } },
  })),
);
</script>

<template>
  <ChartFrame title="How long each took" :says="says" :head="['Student', 'Marked in']" :rows="rows">
    <svg :viewBox="`0 0 ${WIDTH} ${timed.length * ROW}`" role="group" aria-label="Minutes of marking for each work">
      <g v-for="({ work, minutes }, index) in timed" :key="work.submission" :transform="`translate(0 ${index * ROW})`">
        <text :x="LABEL - 8" y="12" text-anchor="end" class="quiet" aria-hidden="true">{{ work.student }}</text>
        <WorkLink :submission="work.submission" :name="`${work.student}: ${words(minutes)}`">
          <rect :x="LABEL" y="2" :width="Math.max(1, x(minutes) - LABEL)" :height="ROW - 5" class="mark" />
        </WorkLink>
        <text :x="x(minutes) + 6" y="12" aria-hidden="true">{{ minutes.toFixed(1) }}</text>
      </g>
    </svg>
  </ChartFrame>
</template>
