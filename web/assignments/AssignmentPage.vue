<script setup lang="ts">
import { readAssignment, type ClassRow } from '#contract/assignments';
import { computed } from 'vue';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import BudgetField from './BudgetField.vue';
import StateNote from '../shell/StateNote.vue';
import { dayAndTime } from '../wording/time.ts';
import { WORK_STATES } from '../wording/work-state.ts';
import { useLoaded } from '../shell/use-loaded.ts';

const props = defineProps<{ assignment: string }>();
const {
  value: overview,
  error,
  load,
} = useLoaded(
  () => call(readAssignment, { params: { assignment: props.assignment } }),
  () => props.assignment,
);

const handedIn = computed(() => overview.value?.rows.filter(({ submission }) => submission) ?? []);
const missing = computed(() => overview.value?.rows.filter(({ submission }) => !submission) ?? []);

const listening = ({ submission }: ClassRow): string =>
  submission?.state === 'returned' && submission.spoken > 0 ? `${submission.heard} of ${submission.spoken} heard` : '';
</script>

<template>
  <PageFrame :title="overview?.title ?? 'Assignment'">
    <StateNote v-if="!overview" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p class="brief">{{ overview.brief }}</p>
      <p class="quiet">
        {{ overview.course }}<template v-if="overview.dueAt">, due {{ dayAndTime(overview.dueAt) }}</template>
      </p>
      <BudgetField :assignment="assignment" :budget="overview.budget" />
      <table>
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
          <tr v-for="row in handedIn" :key="row.student.id">
            <th scope="row">
              <router-link :to="{ name: 'desk', params: { submission: row.submission!.id } }">{{
                row.student.name
              }}</router-link>
            </th>
            <td class="figures">
              {{ dayAndTime(row.submission!.handedInAt) }} <span v-if="row.submission!.late" class="flag">late</span>
            </td>
            <td>{{ WORK_STATES[row.submission!.state].name }}</td>
            <td class="figures">
              {{ listening(row) || row.submission!.remarks || '' }}
              <span v-if="row.submission!.unanswered > 0" class="flag"
                >{{ row.submission!.unanswered }} unanswered</span
              >
            </td>
            <td>{{ row.submission!.grade?.grade ?? '' }}</td>
          </tr>
        </tbody>
      </table>
      <template v-if="missing.length > 0">
        <h2>
          Not handed in <span class="figures quiet">{{ missing.length }}</span>
        </h2>
        <p class="quiet">{{ missing.map(({ student }) => student.name).join(', ') }}</p>
      </template>
    </template>
  </PageFrame>
</template>

<style scoped>
.brief {
  max-width: 68ch;
}
.quiet {
  color: var(--quiet);
}
table {
  width: 100%;
  margin: 24px 0;
  border-collapse: collapse;
}
th,
td {
  padding: 8px;
  text-align: left;
  border-bottom: 1px solid var(--hairline);
}
thead th {
  color: var(--quiet);
  font-weight: 400;
  font-size: 13px;
}
h2 {
  font-size: 17px;
  font-weight: 650;
}
.flag {
  padding: 0 8px;
  font-size: 13px;
  border: 1px solid var(--hairline);
  border-radius: 10px;
}
</style>
