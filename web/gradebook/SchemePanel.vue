<script setup lang="ts">
import { formatHundredths, parseHundredths, schemeProblem } from '#core/grading';
import type { CourseScheme, Gradebook } from '#contract/gradebook';
import { computed, ref } from 'vue';
import SidePanel from '../shell/SidePanel.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useGradebookStore } from './gradebook-store.ts';

/** How the results of a course make its own. */
const props = defineProps<{ book: Gradebook }>();
const emit = defineEmits<{ close: [] }>();
const store = useGradebookStore();

interface Row {
  name: string;
  weight: string;
  drop: string;
  equal: boolean;
}
interface BandRow {
  grade: string;
  from: string;
}

const WAYS = [
  { title: 'add up all points', value: 'points' },
  { title: 'by the weight of each assignment', value: 'assignments' },
  { title: 'by the weight of each category', value: 'categories' },
] as const;

const { scheme } = props.book;
const count = ref(scheme.count);
const decimals = ref(scheme.decimals);
const shown = ref(scheme.shown);
const names = [
  ...new Set([...scheme.categories.map(({ name }) => name), ...props.book.columns.map(({ category }) => category)]),
].filter((name) => name !== '');
const rows = ref(
  names.map((name): Row => {
    const known = scheme.categories.find((one) => one.name === name);
    return {
      name,
      weight: known && known.weight !== null ? formatHundredths(known.weight) : '',
      drop: String(known?.drop ?? 0),
      equal: known?.equal ?? false,
    };
  }),
);
const bands = ref(scheme.scale.map(({ grade, from }): BandRow => ({ grade, from: formatHundredths(from) })));
const { problem: refusal, attempt } = useDeed();

/** As it is typed now; undefined where a number is none. */
const typed = computed((): CourseScheme | undefined => {
  const categories = rows.value.map(({ name, weight, drop, equal }) => ({
    ...{ name, equal },
    weight: weight.trim() === '' ? null : parseHundredths(weight),
    drop: Number(drop),
  }));
  const scale = bands.value
    .filter(({ grade }) => grade.trim() !== '')
    .map(({ grade, from }) => ({ grade: grade.trim(), from: parseHundredths(from) }));
  const isPercent = (value: number | null | undefined): boolean =>
    value === null || (value !== undefined && value >= 0 && value <= 100_00);
  const right =
    categories.every(({ weight, drop }) => isPercent(weight) && Number.isInteger(drop) && drop >= 0 && drop <= 20) &&
    scale.every(({ from }) => from !== null && isPercent(from));
  return right
    ? ({ count: count.value, categories, scale, decimals: decimals.value, shown: shown.value } as CourseScheme)
    : undefined;
});
const problem = computed(() =>
  typed.value
    ? schemeProblem(typed.value)
    : 'Weights and steps are numbers from 0 to 100; the lowest left out, from 0 to 20.',
);

async function keep(): Promise<void> {
  if (await attempt(() => store.setScheme(props.book.course.id, typed.value!))) emit('close');
}
</script>

<template>
  <SidePanel title="How the course is graded" class="panel" @close="emit('close')">
    <form class="fields" @submit.prevent="keep">
      <v-select v-model="count" label="The course grade" :items="[...WAYS]" />
      <table v-if="rows.length > 0">
        <thead>
          <tr>
            <th scope="col">Category</th>
            <th v-if="count === 'categories'" scope="col">Weight, %</th>
            <th scope="col">Lowest left out</th>
            <th v-if="count === 'categories'" scope="col">Each alike</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="row in rows" :key="row.name">
            <th scope="row">{{ row.name }}</th>
            <td v-if="count === 'categories'">
              <input
                v-model="row.weight"
                inputmode="decimal"
                class="figures"
                :aria-label="`Weight of ${row.name} in per cent`"
              />
            </td>
            <td>
              <input
                v-model="row.drop"
                inputmode="numeric"
                class="figures"
                :aria-label="`How many of the lowest of ${row.name} are left out`"
              />
            </td>
            <td v-if="count === 'categories'">
              <input
                v-model="row.equal"
                type="checkbox"
                :aria-label="`Each of ${row.name} counts alike, however many points it has`"
              />
            </td>
          </tr>
        </tbody>
      </table>
      <p v-else class="fine">Give assignments a category to weigh them by it.</p>
      <table>
        <thead>
          <tr>
            <th scope="col">Grade</th>
            <th scope="col">From, %</th>
            <td></td>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(band, index) in bands" :key="index">
            <td><input v-model="band.grade" maxlength="40" :aria-label="`Name of grade ${index + 1}`" /></td>
            <td>
              <input
                v-model="band.from"
                inputmode="decimal"
                class="figures"
                :aria-label="`Grade ${index + 1} from how many per cent`"
              />
            </td>
            <td>
              <v-btn size="small" :aria-label="`Take out grade ${index + 1}`" @click="bands.splice(index, 1)"
                >Take out</v-btn
              >
            </td>
          </tr>
        </tbody>
      </table>
      <v-btn size="small" @click="bands.push({ grade: '', from: '' })">Another grade</v-btn>
      <v-select v-model="decimals" label="Decimals of the per cent" :items="[0, 1, 2]" />
      <v-checkbox v-model="shown" label="Students see their course grade" />
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <p v-if="refusal" class="refused" role="alert">{{ refusal }}</p>
      <div class="row">
        <v-btn type="submit" variant="flat" color="primary" :disabled="problem !== undefined">Keep it</v-btn>
        <v-btn @click="emit('close')">Leave it</v-btn>
      </div>
    </form>
  </SidePanel>
</template>

<style scoped>
.panel {
  flex: none;
  width: 340px;
}
.fields {
  display: grid;
  gap: 12px;
  margin-top: 10px;
}
table {
  border-collapse: collapse;
  font-size: 14px;
}
th {
  font-weight: 400;
  text-align: start;
}
thead th {
  color: var(--quiet);
  font-size: 12px;
}
th,
td {
  padding: 3px 8px 3px 0;
}
td > input:not([type='checkbox']) {
  width: 100%;
  min-width: 56px;
  padding: 4px 6px;
  background: var(--ground);
  color: var(--ink);
  border: 1px solid var(--quiet);
  border-radius: 3px;
  font: inherit;
}
td > input[type='checkbox'] {
  width: 24px;
  height: 24px;
}
.row {
  display: flex;
  gap: 8px;
}
.refused {
  font-size: 14px;
}
</style>
