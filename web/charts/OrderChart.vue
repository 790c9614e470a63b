<script setup lang="ts">
import { inOrder, isDrift, trendWords } from '#core/charts';
import { statisticsOf } from '#core/grading';
import type { ChartWork } from '#contract/charts';
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import { dayAndTime, timeOfDay } from '../wording/format.ts';
import ChartFrame from './ChartFrame.vue';
import WorkLink from './WorkLink.vue';

/** Results in the order in which they were given, with a line that tells whether one became stricter. */
const props = defineProps<{ works: readonly ChartWork[] }>();

const [WIDTH, HEIGHT, TOP, BOTTOM, SIDE] = [520, 220, 12, 26, 34];
const order = computed(() => inOrder(props.works));
const last = computed(() => Math.max(1, order.value.works.length - 1));
const x = computed(() => scaleLinear([0, last.value], [SIDE, WIDTH - 10]));
const y = scaleLinear([0, 100], [HEIGHT - BOTTOM, TOP]).clamp(true);
const line = computed(() => {
  const { trend, works } = order.value;
  // A line is a claim, too.
  if (!isDrift(trend, works.length)) return undefined;
  const middle = statisticsOf(works.map(({ share }) => share)).median!;
  const half = (trend.slope * last.value) / 2;
  return { from: y(middle - half), to: y(middle + half) };
});
/** Some of the times, so that they do not run into each other. */
const times = computed(() =>
  order.value.works
    .map(({ at }, index) => ({ index, words: timeOfDay(new Date(at)) }))
    .filter((_, index, all) => index % Math.max(1, Math.ceil(all.length / 6)) === 0),
);
const rows = computed(() =>
  order.value.works.map(({ work, share, at }, index) => ({
    cells: [work.student, String(index + 1), dayAndTime(at), `${share.toFixed(1)} %`],
    to: { name: 'desk', params: { submission: work.submission } },
  })),
);
</script>

<template>
  <ChartFrame
    title="Was I stricter later on?"
    :says="trendWords(order.trend, order.works.length)"
    :head="['Student', 'Place', 'Scored', 'Per cent']"
    :rows="rows"
  >
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="group" aria-label="Results in the order in which they were scored">
      <g v-for="step in [0, 50, 100]" :key="step" aria-hidden="true">
        <line :x1="SIDE" :x2="WIDTH - 10" :y1="y(step)" :y2="y(step)" class="step" />
        <text x="0" :y="y(step) + 4" class="quiet">{{ step }} %</text>
      </g>
      <text
        v-for="{ index, words } in times"
        :key="index"
        :x="x(index)"
        :y="HEIGHT - 8"
        text-anchor="middle"
        class="quiet"
        aria-hidden="true"
      >
        {{ words }}
      </text>
      <line v-if="line" :x1="x(0)" :x2="x(last)" :y1="line.from" :y2="line.to" class="trend" />
      <WorkLink
        v-for="({ work, share, at }, index) in order.works"
        :key="work.submission"
        :submission="work.submission"
        :name="`${index + 1}: ${work.student}, ${share.toFixed(1)} %, ${dayAndTime(at)}`"
      >
        <circle :cx="x(index)" :cy="y(share)" r="12" class="reach" />
        <circle :cx="x(index)" :cy="y(share)" r="5" class="mark" />
      </WorkLink>
    </svg>
  </ChartFrame>
</template>

<style scoped>
.step {
  stroke: var(--hairline);
}
.trend {
  stroke: var(--ink);
  stroke-width: 2;
  stroke-dasharray: 6 4;
}
.reach {
  fill: transparent;
}
</style>
