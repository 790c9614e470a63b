<script setup lang="ts">
import { lockOf, planImport, type ImportPlan, type PlannedCell } from '#core/gradebook';
import { urlOf } from '#contract/endpoint';
import { gradesCsv, gradesXlsx, readGradeTable, type Gradebook } from '#contract/gradebook';
import { readMembers } from '#contract/roster';
import { computed, ref, shallowRef } from 'vue';
import { call } from '../session/api.ts';
import FileInput from '../shell/FileInput.vue';
import SidePanel from '../shell/SidePanel.vue';
import { useDeed } from '../shell/use-deed.ts';
import { counted } from '../wording/format.ts';
import OneRosterPart from './OneRosterPart.vue';
import PlanTable from './PlanTable.vue';
import type { Grid } from './use-grid.ts';

/** Grades as a file, out and in. Nothing comes in before it was shown what would. */
const props = defineProps<{ book: Gradebook; grid: Grid }>();
const emit = defineEmits<{ close: []; changed: [] }>();

const FATES: Record<PlannedCell['fate'], string> = {
  new: 'new',
  changed: 'changed',
  unchanged: 'as it is',
  refused: 'not taken',
};
const ORDER = ['refused', 'changed', 'new', 'unchanged'] as const;
/** More lines than anybody reads. */
const MOST_SHOWN = 300;

const plan = shallowRef<ImportPlan>();
const taken = ref<number>();
let takeBack = (): void => undefined;
const { busy, problem, attempt } = useDeed();

const count = (fate: PlannedCell['fate']): number => plan.value!.cells.filter((cell) => cell.fate === fate).length;
const coming = computed(() => plan.value?.cells.flatMap(({ change }) => change ?? []) ?? []);
const listed = computed(() =>
  (plan.value?.cells ?? [])
    .toSorted((a, b) => ORDER.indexOf(a.fate) - ORDER.indexOf(b.fate) || a.line - b.line)
    .map((cell) => ({ ...cell, what: [cell.student, cell.assignment].filter(Boolean).join(', ') })),
);
const summary = computed(() =>
  ORDER.map((fate) => `${count(fate)} ${FATES[fate]}`)
    .toReversed()
    .join(', '),
);

async function choose([file]: [File, ...File[]]): Promise<void> {
  leave();
  await attempt(async () => {
    const params = { course: props.book.course.id };
    const { rows } = await call(readGradeTable, { params, files: [file] });
    const { members } = await call(readMembers, { params });
    plan.value = planned(rows, new Map(members.map((member) => [member.id, member])));
    problem.value = plan.value.problem;
  });
}

function planned(rows: string[][], members: ReadonlyMap<string, { number: string; mail: string }>): ImportPlan {
  const { columns, rows: own } = props.book;
  const students = own.map(({ id, name }) => ({ number: '', mail: '', ...members.get(id), id, name }));
  const [rowOf, columnOf] = [new Map(own.map((row) => [row.id, row])), new Map(columns.map(({ id }, at) => [id, at]))];
  return planImport(rows, { students, columns }, (student, assignment) => {
    const cell = rowOf.get(student)!.cells[columnOf.get(assignment)!];
    return {
      points: cell?.points ?? null,
      flag: cell?.flag ?? null,
      locked: lockOf(cell),
    };
  });
}

function bringIn(): void {
  taken.value = coming.value.length;
  takeBack = props.grid.take(coming.value);
  plan.value = undefined;
}
function leave(): void {
  plan.value = problem.value = taken.value = undefined;
}
</script>

<template>
  <SidePanel title="Grades as a file" class="panel" @close="emit('close')">
    <div class="parts">
      <p class="links">
        <a :href="urlOf(gradesXlsx, { course: book.course.id })" download>Save as a workbook (.xlsx)</a>
        <a :href="urlOf(gradesCsv, { course: book.course.id })" download>Save as a table (.csv)</a>
      </p>
      <p class="links">
        <router-link :to="{ name: 'reports', params: { course: book.course.id } }"
          >Reports of the class, to print</router-link
        >
      </p>
      <p class="fine">
        A table comes in with a first line that says what is in each column: Student, Number or Mail, and the titles of
        assignments. Empty cells change nothing.
      </p>
      <FileInput v-slot="{ open }" label="Grades as a file" accept=".csv,.tsv,.txt,.xlsx" @choose="choose">
        <v-btn variant="outlined" :loading="busy" @click="open">Look at a file …</v-btn>
      </FileInput>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <p v-if="taken !== undefined" role="status">
        {{ counted(taken, 'grade') }} came in, as drafts.
        <v-btn size="small" variant="outlined" @click="(takeBack(), leave())">Take it back</v-btn>
      </p>
      <template v-if="plan && !plan.problem">
        <p role="status">{{ summary }}.</p>
        <p v-if="plan.passedOver.length > 0" class="fine">Passed over: {{ plan.passedOver.join(', ') }}.</p>
        <div class="row">
          <v-btn variant="flat" color="primary" :disabled="coming.length === 0" @click="bringIn"
            >Take over {{ counted(coming.length, 'grade') }}</v-btn
          >
          <v-btn @click="leave">Leave it</v-btn>
        </div>
        <PlanTable :lines="listed.slice(0, MOST_SHOWN)" :count="listed.length" />
      </template>
      <OneRosterPart :course="book.course.id" @changed="emit('changed')" />
    </div>
  </SidePanel>
</template>

<style scoped>
.panel {
  flex: none;
  width: 420px;
}
.parts {
  display: grid;
  gap: 10px;
  justify-items: start;
  margin-top: 10px;
}
.links {
  display: grid;
  gap: 4px;
}
.row {
  display: flex;
  gap: 8px;
}
</style>
