<script setup lang="ts">
import { computed } from 'vue';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { counted } from '../wording/format.ts';
import { resultsIn } from './report-results.ts';
import ReportSheet from './ReportSheet.vue';
import { useReports } from './use-reports.ts';

/** What a student, or each of a course, has been given, on paper or as a PDF. */
const props = defineProps<{ course: string; student?: string }>();

const { reports, total, error, load } = useReports(
  () => props.course,
  () => props.student,
);
const done = computed(() => reports.value.length === total.value);
/** An empty leaf tells a class nothing; who asks about one student is told that there is nothing. */
const shown = computed(() =>
  props.student ? reports.value : reports.value.filter((report) => resultsIn(report).length > 0),
);
const empty = computed(() => reports.value.length - shown.value.length);
const print = (): void => window.print();
</script>

<template>
  <PageFrame :title="student ? 'Report' : 'Reports of the class'">
    <p class="bar screen-only">
      <router-link :to="{ name: 'gradebook', params: { course }, query: { student } }">Gradebook</router-link>
      <v-btn variant="flat" color="primary" :disabled="!done || shown.length === 0" @click="print"
        >Print or save as PDF</v-btn
      >
      <span class="quiet">Only what students see is in it; drafts are not.</span>
    </p>
    <div v-if="!done" class="bar screen-only">
      <StateNote :busy="!error" :error="error" @retry="load" />
      <p v-if="total && !student" role="status">{{ reports.length }} of {{ counted(total, 'report') }}</p>
    </div>
    <p v-if="reports[0] && !reports[0].scheme.shown" class="bar screen-only quiet">
      Students do not see their course grade, so it is left out.
    </p>
    <p v-if="done && empty > 0" class="bar screen-only quiet">
      Nothing has been returned to {{ counted(empty, 'student') }} yet: left out here.
    </p>
    <ReportSheet v-for="(report, index) in shown" :key="index" :report="report" />
  </PageFrame>
</template>

<style scoped>
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 20px;
  align-items: center;
  margin-bottom: 16px;
}
</style>

<style>
@media print {
  main.page:has(> .report) > h1 {
    display: none;
  }
}
</style>
