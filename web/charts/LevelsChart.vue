<script setup lang="ts">
import { levelsAcross, weakest } from '#core/charts';
import type { Rubric } from '#core/grading';
import type { ChartWork } from '#contract/charts';
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import { counted } from '../wording/format.ts';
import ChartFrame from './ChartFrame.vue';
import WorkLink from './WorkLink.vue';

/** Which levels a class has reached in each criterion: a row of bricks for each level, the lowest first. */
const props = defineProps<{ rubric: Rubric; works: readonly ChartWork[] }>();

const [WIDTH, ROW, HEAD, LABEL] = [520, 18, 22, 130];
const across = computed(() => levelsAcross(props.rubric, props.works));
const most = computed(() =>
  Math.max(8, ...across.value.flatMap(({ levels }) => levels.map(({ works }) => works.length))),
);
const x = computed(() => scaleLinear([0, most.value], [LABEL, WIDTH - 30]));
const heightOf = (levels: number): number => HEAD + levels * ROW + 8;
const starts = computed(() =>
  across.value.reduce<number[]>((all, { levels }) => [...all, all.at(-1)! + heightOf(levels.length)], [0]),
);
const says = computed(() => {
  const found = weakest(props.rubric, props.works);
  return found
    ? `Most students lost points on “${found.title}”: ${counted(found.works, 'work')} below the top level.`
    : 'Each brick is a work; press it to open it.';
});
const rows = computed(() =>
  across.value.flatMap(({ criterion, levels }) =>
    levels.map(({ title, works }) => ({
      cells: [criterion.title, title, String(works.length), works.map(({ student }) => student).join(', ')],
    })),
  ),
);
</script>

<template>
  <ChartFrame
    title="Levels across the class"
    :says="says"
    :head="['Criterion', 'Level', 'Works', 'Whose']"
    :rows="rows"
  >
    <svg :viewBox="`0 0 ${WIDTH} ${starts.at(-1)}`" role="group" aria-label="Works on each level of each criterion">
      <g
        v-for="({ criterion, levels }, index) in across"
        :key="criterion.id"
        :transform="`translate(0 ${starts[index]})`"
      >
        <text x="0" y="14" class="title">{{ criterion.title }}</text>
        <g
          v-for="({ title, works: some }, level) in levels"
          :key="title"
          :transform="`translate(0 ${HEAD + level * ROW})`"
        >
          <text :x="LABEL - 8" y="11" text-anchor="end" class="quiet">{{ title }}</text>
          <WorkLink
            v-for="(work, place) in some"
            :key="work.submission"
            :submission="work.submission"
            :name="`${work.student}: ${criterion.title}, ${title}`"
          >
            <rect :x="x(place)" y="0" :width="Math.max(2, x(1) - x(0) - 2)" :height="ROW - 4" class="mark" />
          </WorkLink>
          <text :x="x(some.length) + 4" y="11">{{ some.length || '' }}</text>
        </g>
      </g>
    </svg>
  </ChartFrame>
</template>

<style scoped>
.title {
  font-weight: 600;
}
</style>
