<script setup lang="ts">
import type { StudentReport } from '#contract/gradebook';
import { courseGrader, explainCourse, formatHundredths } from '#core/grading';
import { computed } from 'vue';
import StateNote from '../shell/StateNote.vue';
import { dayAndTime } from '../wording/format.ts';
import { resultWords } from './cell-words.ts';
import { resultsIn } from './report-results.ts';

/** One student's report: results, how they add up, and the words of what was said. */
const props = defineProps<{ report: StudentReport }>();

const cells = computed(() => props.report.cells.map((cell) => cell ?? undefined));
const whole = computed(() => courseGrader(props.report.columns, props.report.scheme)(cells.value));
const lines = computed(() => explainCourse(props.report.columns, cells.value, props.report.scheme));
const rows = computed(() => resultsIn(props.report));
const today = dayAndTime(new Date().toISOString());
</script>

<template>
  <article class="report" :aria-label="report.student">
    <h2 dir="auto">{{ report.student }}</h2>
    <p>
      {{ report.course.title }} <span class="quiet figures">as of {{ today }}</span>
    </p>
    <template v-if="report.scheme.shown && whole.percentage !== null">
      <p class="grade figures">{{ whole.grade }} {{ formatHundredths(whole.percentage) }} %</p>
      <p v-for="line in lines" :key="line" class="sum">{{ line }}</p>
    </template>
    <StateNote v-if="rows.length === 0"
      >Nothing has been returned to {{ report.student }} in this course yet.</StateNote
    >
    <section v-for="{ column, cell, explanation, remarks } in rows" :key="column.id" :aria-label="column.title">
      <h3>
        {{ column.title }}
        <span class="figures result">
          {{ cell.flag ?? '' }}
          <template v-if="cell.points !== null"
            >{{ resultWords(cell, 'points') }}{{ cell.possible === null ? '' : ` of ${formatHundredths(cell.possible)}`
            }}{{ cell.grade ? `, ${cell.grade}` : '' }}</template
          >{{ cell.late ? ', late' : '' }}
        </span>
      </h3>
      <p v-if="explanation" class="sum">{{ explanation }}</p>
      <ul v-if="remarks.length > 0">
        <li v-for="(remark, index) in remarks" :key="index">
          <p class="kind">
            {{ remark.glyph }} {{ remark.kind }}<template v-if="remark.criterion">, on {{ remark.criterion }}</template>
            <span v-if="remark.spoken" class="quiet spoken">{{
              remark.heard ? 'spoken, heard' : 'spoken, not heard yet'
            }}</span>
          </p>
          <p v-if="remark.passage" class="passage" dir="auto">“{{ remark.passage }}”</p>
          <p class="words" dir="auto">{{ remark.words || 'There are no words of it yet.' }}</p>
        </li>
      </ul>
    </section>
  </article>
</template>

<style scoped>
.report {
  max-width: 74ch;
}
.report + .report {
  margin-top: 48px;
  break-before: page;
}
h2 {
  font-size: 22px;
}
.grade {
  margin-top: 8px;
  font-size: 22px;
  font-weight: 650;
}
.sum {
  font-size: 14px;
}
h3 {
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
.spoken {
  margin-inline-start: 8px;
}
.passage {
  color: var(--quiet);
  font-family: var(--serif);
}
.words {
  white-space: pre-wrap;
}
@media print {
  .report {
    max-width: none;
    margin: 0;
  }
}
</style>
