<script setup lang="ts">
import { formatHundredths, type Marking } from '#core/grading';
import type { ClassRow } from '#contract/assignments';
import { dayAndTime } from '../wording/format.ts';
import { standingWords } from '../wording/standing.ts';
import { WORK_STATES } from '../wording/work-state.ts';

/** Those who have handed in, and how far their works are. */
const props = defineProps<{ rows: readonly ClassRow[]; shown: Marking['shown'] }>();

/** What the assignment calls its results by. */
function gradeWords({ submission }: ClassRow): string {
  const grade = submission?.grade;
  if (!grade || submission.returnedAt === null) return '';
  const points = `${formatHundredths(grade.points)} of ${formatHundredths(grade.possible)}`;
  const { shown } = props;
  return shown === 'percent'
    ? `${formatHundredths(grade.percentage)} %`
    : shown === 'level'
      ? (grade.grade ?? points)
      : points;
}

const listening = ({ submission }: ClassRow): string =>
  submission?.state === 'returned' && submission.spoken > 0 ? `${submission.heard} of ${submission.spoken} heard` : '';
</script>

<template>
  <v-table class="class">
    <thead>
      <tr>
        <th scope="col">Student</th>
        <th scope="col">Handed in</th>
        <th scope="col">State</th>
        <th scope="col">Remarks</th>
        <th scope="col">Grade</th>
      </tr>
    </thead>
    <tbody>
      <tr v-for="row in rows" :key="row.student.id">
        <th scope="row">
          <router-link :to="{ name: 'desk', params: { submission: row.submission!.id } }">{{
            row.student.name
          }}</router-link>
        </th>
        <td class="figures">
          {{ dayAndTime(row.submission!.handedInAt) }}
          <v-chip v-for="flag in standingWords(row.standing, row.submission!.late)" :key="flag">{{ flag }}</v-chip>
        </td>
        <td>{{ WORK_STATES[row.submission!.state].name }}</td>
        <td class="figures">
          {{ listening(row) || row.submission!.remarks || '' }}
          <v-chip v-if="row.submission!.unanswered > 0">{{ row.submission!.unanswered }} unanswered</v-chip>
        </td>
        <td>{{ gradeWords(row) }}</td>
      </tr>
    </tbody>
  </v-table>
</template>

<style scoped>
.class {
  margin: 24px 0;
  background: transparent;
}
</style>
