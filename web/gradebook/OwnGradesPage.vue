<script setup lang="ts">
import { courseGrader, explainCourse, formatHundredths, type CourseCell, type CourseItem } from '#core/grading';
import { readEntry } from '#core/gradebook';
import { readOwnGrades, type OwnGrades } from '#contract/gradebook';
import { computed, reactive } from 'vue';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { dayAndTime } from '../wording/format.ts';
import { resultWords } from './cell-words.ts';

/** A student's results in all their courses, and what would become of them if. */
const { value, error, load } = useLoaded(() => call(readOwnGrades));

/** What is typed into “What if”, by assignment. */
const supposed = reactive<Record<string, string>>({});
/** The course that “What if” is open for. */
const supposing = reactive<Record<string, boolean>>({});

const itemsOf = ({ columns }: OwnGrades): CourseItem[] => columns;
function cellsOf({ course, columns, cells }: OwnGrades): (CourseCell | undefined)[] {
  return cells.map((cell, index) => {
    const { id, possible } = columns[index]!;
    const text = supposing[course.id] ? (supposed[id] ?? '') : '';
    const entry = text === '' ? undefined : readEntry(text, possible);
    if (!entry || 'problem' in entry) return cell ?? undefined;
    return 'flag' in entry
      ? { points: null, possible, flag: entry.flag }
      : { points: entry.points, possible, flag: null };
  });
}

const courses = computed(
  () =>
    value.value?.map((one) => {
      const cells = cellsOf(one);
      return {
        ...one,
        grade: one.scheme && courseGrader(itemsOf(one), one.scheme)(cells),
        lines: one.scheme ? explainCourse(itemsOf(one), cells, one.scheme) : [],
        rows: one.columns.map((column, index) => ({ column, cell: one.cells[index] ?? null })),
      };
    }) ?? [],
);
const problemOf = (id: string, possible: number | null): string | undefined => {
  const entry = readEntry(supposed[id] ?? '', possible);
  return 'problem' in entry ? entry.problem : undefined;
};
function stop(one: OwnGrades): void {
  supposing[one.course.id] = false;
  for (const { id } of one.columns) supposed[id] = '';
}
</script>

<template>
  <PageFrame title="Your grades">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <StateNote v-else-if="courses.length === 0">You are in no course yet.</StateNote>
    <section v-for="one in courses" :key="one.course.id" :aria-label="one.course.title">
      <h2>
        {{ one.course.title }}
        <v-chip v-if="one.course.aside">over</v-chip>
        <span v-if="one.grade?.percentage != null" class="grade figures"
          >{{ supposing[one.course.id] ? 'would be ' : '' }}{{ one.grade.grade }}
          {{ formatHundredths(one.grade.percentage) }} %</span
        >
      </h2>
      <p v-if="one.rows.length === 0" class="quiet">There are no assignments here yet.</p>
      <v-table v-else>
        <thead>
          <tr>
            <th scope="col">Assignment</th>
            <th scope="col" class="due">Due</th>
            <th scope="col">Result</th>
            <th scope="col">Remarks heard</th>
            <th v-if="supposing[one.course.id]" scope="col">What if</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="{ column, cell } in one.rows" :key="column.id">
            <th scope="row">
              <router-link
                v-if="cell?.submission"
                :to="{ name: 'returned', params: { submission: cell.submission } }"
                >{{ column.title }}</router-link
              >
              <template v-else>{{ column.title }}</template>
            </th>
            <td class="figures due">{{ column.dueAt ? dayAndTime(column.dueAt) : '' }}</td>
            <td class="figures">
              <v-chip v-if="cell?.flag">{{ cell.flag }}</v-chip>
              <v-chip v-if="cell?.late">late</v-chip>
              <template v-if="cell && cell.points !== null"
                >{{ resultWords(cell, 'points')
                }}{{ cell.possible === null ? '' : ` of ${formatHundredths(cell.possible)}`
                }}{{ cell.grade ? `, ${cell.grade}` : '' }}</template
              >
            </td>
            <td class="figures">{{ cell && cell.spoken > 0 ? `${cell.heard} of ${cell.spoken}` : '' }}</td>
            <td v-if="supposing[one.course.id]">
              <v-text-field
                v-model="supposed[column.id]"
                class="what-if"
                density="compact"
                hide-details="auto"
                :aria-label="`What if in ${column.title}`"
                :placeholder="column.possible === null ? '' : `of ${formatHundredths(column.possible)}`"
                :error-messages="problemOf(column.id, column.possible) ?? []"
              />
            </td>
          </tr>
        </tbody>
      </v-table>
      <p v-for="line in one.lines" :key="line" class="quiet">{{ line }}</p>
      <template v-if="one.scheme && one.rows.length > 0">
        <v-btn v-if="supposing[one.course.id]" size="small" @click="stop(one)">Back to what is</v-btn>
        <v-btn v-else size="small" @click="supposing[one.course.id] = true">What if …</v-btn>
      </template>
      <p v-else-if="one.rows.length > 0" class="quiet">Your teacher tells the course grade themselves.</p>
    </section>
  </PageFrame>
</template>

<style scoped>
section {
  margin-bottom: 36px;
}
h2 {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: baseline;
  font-size: 17px;
  font-weight: 650;
}
.grade {
  font-weight: 500;
}
.v-table {
  margin: 8px 0;
  background: transparent;
}
.what-if {
  width: 110px;
}
.quiet {
  font-size: 14px;
}
@media (max-width: 600px) {
  .due {
    display: none;
  }
  .v-table :is(th, td) {
    padding: 4px 8px 4px 0 !important;
  }
}
</style>
