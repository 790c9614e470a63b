<script setup lang="ts">
import { distribution, shareOf } from '#core/charts';
import { formatHundredths } from '#core/grading';
import type { ChartWork } from '#contract/charts';
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import ChartFrame from './ChartFrame.vue';
import WorkLink from './WorkLink.vue';

/** How results are spread: each work is a brick on its step, with the quartiles above. */
const props = defineProps<{ works: readonly ChartWork[] }>();

const [WIDTH, HEIGHT, TOP, BOTTOM, SIDE] = [520, 220, 34, 24, 8];
const spread = computed(() => distribution(props.works));
const most = computed(() => Math.max(6, ...spread.value.bins.map(({ works }) => works.length)));
const x = scaleLinear([0, 100], [SIDE, WIDTH - SIDE]);
const y = computed(() => scaleLinear([0, most.value], [HEIGHT - BOTTOM, TOP]));
const brick = computed(() => y.value(0) - y.value(1));
const wide = x(10) - x(0) - 4;

const one = (value: number | null): string => (value === null ? '' : value.toFixed(1));
const says = computed(() => {
  const { n, mean, median, q1, q3, sd } = spread.value.statistics;
  if (n === 0) return 'Nothing has been graded yet.';
  return `${n} results: median ${one(median)} %, the middle half from ${one(q1)} to ${one(q3)} %, mean ${one(mean)} %${sd === null ? '' : `, standard deviation ${one(sd)}`}.`;
});
const nameOf = (work: ChartWork): string =>
  `${work.student}: ${formatHundredths(work.points!)} of ${formatHundredths(work.possible!)}, ${one(shareOf(work)!)} %`;
const rows = computed(() =>
  spread.value.bins
    .flatMap(({ works }) => works)
    .toSorted((a, b) => shareOf(b)! - shareOf(a)!)
    .map((work) => ({
      cells: [
        work.student,
        `${formatHundredths(work.points!)} of ${formatHundredths(work.possible!)}`,
        `${one(shareOf(work)!)} %`,
      ],
      to: { name: 'desk', params: { submission: work.submission } },
    })),
);
</script>

<template>
  <ChartFrame title="How results are spread" :says="says" :head="['Student', 'Points', 'Per cent']" :rows="rows">
    <svg :viewBox="`0 0 ${WIDTH} ${HEIGHT}`" role="group" aria-label="Results by steps of ten per cent">
      <g v-if="spread.statistics.median !== null" aria-hidden="true">
        <rect
          :x="x(spread.statistics.q1!)"
          y="14"
          :width="Math.max(1, x(spread.statistics.q3!) - x(spread.statistics.q1!))"
          height="8"
          class="half"
        />
        <line :x1="x(spread.statistics.median)" :x2="x(spread.statistics.median)" y1="10" y2="26" class="middle" />
        <text :x="x(spread.statistics.median)" y="8" text-anchor="middle" class="quiet">median</text>
      </g>
      <template v-for="bin in spread.bins" :key="bin.from">
        <WorkLink
          v-for="(work, index) in bin.works"
          :key="work.submission"
          :submission="work.submission"
          :name="nameOf(work)"
        >
          <rect :x="x(bin.from) + 2" :y="y(index + 1)" :width="wide" :height="brick - 2" class="mark" />
        </WorkLink>
        <text :x="x(bin.from)" :y="HEIGHT - 8" text-anchor="middle" class="quiet" aria-hidden="true">
          {{ bin.from }}
        </text>
      </template>
      <text :x="x(100)" :y="HEIGHT - 8" text-anchor="end" class="quiet" aria-hidden="true">100 %</text>
      <line :x1="x(0)" :x2="x(100)" :y1="y(0)" :y2="y(0)" class="ground" />
    </svg>
  </ChartFrame>
</template>

<style scoped>
.half {
  fill: none;
  stroke: var(--ink);
}
.middle {
  stroke: var(--ink);
  stroke-width: 2;
}
.ground {
  stroke: var(--quiet);
}
</style>
