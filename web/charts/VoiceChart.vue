<script setup lang="ts">
import { unheard } from '#core/charts';
import { keyEntry } from '#core/margin';
import { readVoice, type CourseVoice } from '#contract/charts';
import { scaleLinear } from 'd3-scale';
import { computed } from 'vue';
import { call } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { listOf } from '../wording/format.ts';
import ChartFrame from './ChartFrame.vue';
import WorkLink from './WorkLink.vue';

/** How much each student of a course has been told by voice, and what it was for: a sign for each remark. */
const props = defineProps<{ course: string }>();

const { value, error, load } = useLoaded(
  () => call(readVoice, { params: { course: props.course } }),
  () => props.course,
);

const [WIDTH, ROW, LABEL, MINUTES, SIGNS] = [1060, 20, 170, 330, 620];
type Student = CourseVoice['students'][number];
const students = computed(() => value.value?.students ?? []);
const key = computed(() => value.value?.marginKey ?? []);
const x = computed(() =>
  scaleLinear([0, Math.max(60, ...students.value.map(({ seconds }) => seconds))], [LABEL, LABEL + MINUTES]),
);
/** As many signs as there are remarks, closer together where there are many. */
const signs = ({ kinds }: Student): { glyph: string; color: string; name: string }[] =>
  [...new Set([...key.value.map(({ kind }) => kind), ...Object.keys(kinds)])].flatMap((kind) => {
    const { glyph, color, name } = keyEntry(key.value, kind);
    return Array.from({ length: kinds[kind] ?? 0 }, () => ({ glyph, color, name }));
  });
const most = computed(() => Math.max(1, ...students.value.map((student) => signs(student).length)));
const apart = computed(() => Math.min(16, (WIDTH - SIGNS) / most.value));
const minutes = (seconds: number): string => `${(seconds / 60).toFixed(1)} min`;
const kindsOf = (student: Student): string =>
  Object.entries(student.kinds)
    .map(([kind, count]) => `${count} ${keyEntry(key.value, kind).name}`)
    .join(', ') || 'no remarks';

const REPAIR = 'repair';
const says = computed(() => {
  const { little, onlyRepairs } = unheard(students.value, REPAIR);
  const names = (some: Student[]): string => listOf(some.map(({ name }) => name));
  const repairs = keyEntry(key.value, REPAIR).name;
  const found = [
    ...(little.length > 0
      ? [`${names(little)} ${little.length === 1 ? 'has' : 'have'} been told less than half of what is usual.`]
      : []),
    ...(onlyRepairs.length > 0
      ? [`${names(onlyRepairs)} ${onlyRepairs.length === 1 ? 'hears' : 'hear'} nothing but “${repairs}”.`]
      : []),
  ];
  return found.length > 0
    ? found.join(' ')
    : 'Nobody is told much less than the others, and nobody hears of repairs alone.';
});
const rows = computed(() =>
  students.value.map((student) => ({
    cells: [student.name, minutes(student.seconds), kindsOf(student)],
    ...(student.submission && { to: { name: 'desk', params: { submission: student.submission } } }),
  })),
);
</script>

<template>
  <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
  <ChartFrame
    v-else
    title="Who hears how much, and of what"
    :says="says"
    :head="['Student', 'Voice', 'Remarks']"
    :rows="rows"
  >
    <p class="legend">
      <span v-for="{ kind, name, glyph, color } in key" :key="kind" :style="{ color: `rgb(var(--v-theme-${color}))` }"
        >{{ glyph }} {{ name }}</span
      >
    </p>
    <svg
      :viewBox="`0 0 ${WIDTH} ${students.length * ROW}`"
      role="group"
      aria-label="Minutes of voice and kinds of remarks for each student"
    >
      <g v-for="(student, index) in students" :key="student.student" :transform="`translate(0 ${index * ROW})`">
        <text :x="LABEL - 8" y="14" text-anchor="end" class="quiet" aria-hidden="true">{{ student.name }}</text>
        <component
          :is="student.submission ? WorkLink : 'g'"
          v-bind="
            student.submission
              ? {
                  submission: student.submission,
                  name: `${student.name}: ${minutes(student.seconds)}, ${kindsOf(student)}`,
                }
              : {}
          "
        >
          <rect :x="LABEL" y="3" :width="Math.max(1, x(student.seconds) - LABEL)" :height="ROW - 6" class="mark" />
        </component>
        <text :x="x(student.seconds) + 6" y="14" aria-hidden="true">{{ minutes(student.seconds) }}</text>
        <text
          v-for="({ glyph, color }, place) in signs(student)"
          :key="place"
          :x="SIGNS + place * apart"
          y="14"
          class="sign"
          :style="{ fill: `rgb(var(--v-theme-${color}))` }"
          aria-hidden="true"
        >
          {{ glyph }}
        </text>
      </g>
    </svg>
  </ChartFrame>
</template>

<style scoped>
.legend {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 18px;
  margin-bottom: 6px;
  font-size: 14px;
}
.sign {
  font-weight: 700;
}
</style>
