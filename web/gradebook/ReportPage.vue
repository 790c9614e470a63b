<script setup lang="ts">
import { readReport } from '#contract/gradebook';
import { courseGrader, explainCourse, formatHundredths } from '#core/grading';
import { computed } from 'vue';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { dayAndTime } from '../wording/format.ts';
import { resultWords } from './cell-words.ts';

/** What a student has been given in a course, on paper or as a PDF: results, how they add up, and the words of what was said. */
const props = defineProps<{ course: string; student: string }>();

const { value, error, load } = useLoaded(
  () => call(readReport, { params: { course: props.course, student: props.student } }),
  () => [props.course, props.student],
);
const cells = computed(() => value.value?.cells.map((cell) => cell ?? undefined) ?? []);
const whole = computed(() => value.value && courseGrader(value.value.columns, value.value.scheme)(cells.value));
const lines = computed(() => (value.value ? explainCourse(value.value.columns, cells.value, value.value.scheme) : []));
const rows = computed(
  () =>
    value.value?.columns.flatMap((column, at) => {
      const cell = value.value!.cells[at];
      return cell ? [{ column, cell, ...value.value!.details[at]! }] : [];
    }) ?? [],
);
const today = dayAndTime(new Date().toISOString());
const print = (): void => window.print();
</script>

<template>
  <PageFrame :title="value?.student ?? 'Report'">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <div v-else class="report">
      <p class="bar">
        <router-link :to="{ name: 'gradebook', params: { course }, query: { student } }">Gradebook</router-link>
        <v-btn variant="flat" color="primary" @click="print">Print or save as PDF</v-btn>
        <span class="quiet">Only what {{ value.student }} sees is in it; drafts are not.</span>
      </p>
      <p>
        {{ value.course.title }} <span class="quiet figures">as of {{ today }}</span>
      </p>
      <template v-if="whole && whole.percentage !== null">
        <p class="grade figures">{{ whole.grade }} {{ formatHundredths(whole.percentage) }} %</p>
        <p v-for="line in lines" :key="line" class="sum">{{ line }}</p>
      </template>
      <StateNote v-if="rows.length === 0"
        >Nothing has been returned to {{ value.student }} in this course yet.</StateNote
      >
      <section v-for="{ column, cell, explanation, remarks } in rows" :key="column.id" :aria-label="column.title">
        <h2>
          {{ column.title }}
          <span class="figures result">
            {{ cell.flag ?? '' }}
            <template v-if="cell.points !== null"
              >{{ resultWords(cell, 'points')
              }}{{ cell.possible === null ? '' : ` of ${formatHundredths(cell.possible)}`
              }}{{ cell.grade ? `, ${cell.grade}` : '' }}</template
            >{{ cell.late ? ', late' : '' }}
          </span>
        </h2>
        <p v-if="explanation" class="sum">{{ explanation }}</p>
        <ul v-if="remarks.length > 0">
          <li v-for="(remark, index) in remarks" :key="index">
            <p class="kind">
              {{ remark.glyph }} {{ remark.kind
              }}<template v-if="remark.criterion">, on {{ remark.criterion }}</template>
              <span v-if="remark.spoken" class="quiet">{{
                remark.heard ? 'spoken, heard' : 'spoken, not heard yet'
              }}</span>
            </p>
            <p v-if="remark.passage" class="passage" dir="auto">“{{ remark.passage }}”</p>
            <p class="words" dir="auto">{{ remark.words || 'There are no words of it yet.' }}</p>
          </li>
        </ul>
      </section>
    </div>
  </PageFrame>
</template>

<style scoped>
.report {
  max-width: 74ch;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
  margin-bottom: 16px;
}
.grade {
  margin-top: 8px;
  font-size: 22px;
  font-weight: 650;
}
.sum {
  font-size: 14px;
}
h2 {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  margin: 20px 0 4px;
  padding-top: 8px;
  border-top: 1px solid var(--hairline);
  font-size: 16px;
  font-weight: 650;
  break-after: avoid;
}
.result {
  font-weight: 500;
}
ul {
  margin-top: 6px;
  list-style: none;
}
li {
  margin-top: 8px;
  padding-inline-start: 12px;
  border-inline-start: 2px solid var(--hairline);
  break-inside: avoid;
}
.kind {
  font-size: 14px;
  font-weight: 600;
}
.kind .quiet {
  font-weight: 400;
}
.passage {
  color: var(--quiet);
  font-family: var(--serif);
}
.words {
  white-space: pre-wrap;
}
.quiet {
  color: var(--quiet);
}
@media print {
  .bar {
    display: none;
  }
  .report {
    max-width: none;
  }
}
</style>

<style>
@media print {
  header.head {
    display: none !important;
  }
}
</style>
