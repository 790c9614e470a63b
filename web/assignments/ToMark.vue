<script setup lang="ts">
import { QUEUE_KINDS, type QueueKind } from '#core/workflow';
import { readWaiting } from '#contract/assignments';
import { storeToRefs } from 'pinia';
import { computed, ref } from 'vue';
import { useQueueFilter, waitedFor, type Waited } from '../feedback/queue.ts';
import { call } from '../session/api.ts';
import { useCourses } from '../session/courses.ts';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { dayAndTime, listOf } from '../wording/format.ts';
import { standingWords } from '../wording/standing.ts';
import { WORK_STATES } from '../wording/work-state.ts';
import TaughtList from './TaughtList.vue';

/** What waits for a teacher: one queue over all courses, and the assignments. */
const { value: waiting, error, load } = useLoaded(() => call(readWaiting));
const { courses } = storeToRefs(useCourses());
const filter = useQueueFilter();

const KIND_NAMES: Record<QueueKind, string> = { new: 'new', back: 'back again', reply: 'replies' };
/** More than that nobody reads at once. */
const PAGE = 50;
const pages = ref(1);

const chipsOf = (work: NonNullable<Waited['work']>): string[] => [
  ...(work.version > 1 ? [`version ${work.version}`] : []),
  ...(work.state === 'waiting' ? [] : [WORK_STATES[work.state].name]),
  ...standingWords(work.standing, work.late),
];
const queue = computed(() => waiting.value && waitedFor(waiting.value, filter.value));
const hidden = computed(() => {
  const { hiddenByCourse = 0, hiddenByKind = 0 } = queue.value ?? {};
  const parts = [
    ...(hiddenByCourse > 0 ? [`${hiddenByCourse} hidden by course`] : []),
    ...(hiddenByKind > 0 ? [`${hiddenByKind} by kind`] : []),
  ];
  return parts.length > 0 ? `; ${listOf(parts)}` : '';
});
const count = computed(() => {
  const { shown = [], hiddenByCourse = 0, hiddenByKind = 0 } = queue.value ?? {};
  const all = shown.length + hiddenByCourse + hiddenByKind;
  return shown.length === all ? String(all) : `${shown.length} of ${all}`;
});
const choices = computed(() => [
  { title: 'all courses', value: null },
  // A course that one has left since hides everything, and says so.
  ...(courses.value.some(({ id }) => id === filter.value.course) || filter.value.course === null
    ? []
    : [{ title: 'a course that is not yours any more', value: filter.value.course }]),
  ...courses.value.filter(({ teaches }) => teaches).map(({ id, title }) => ({ title, value: id })),
]);

function toggle(kind: QueueKind, on: boolean | null): void {
  filter.value = {
    ...filter.value,
    kinds: QUEUE_KINDS.filter((one) => (one === kind ? on : filter.value.kinds.includes(one))),
  };
}
</script>

<template>
  <StateNote v-if="!waiting || !queue" :busy="!error" :error="error" @retry="load" />
  <div v-else class="columns">
    <section aria-labelledby="to-mark">
      <h2 id="to-mark">
        To mark <span class="figures count" role="status">{{ count }}{{ hidden }}</span>
      </h2>
      <div class="filter" role="group" aria-label="What the queue shows">
        <v-select
          :model-value="filter.course"
          :items="choices"
          density="compact"
          hide-details
          aria-label="Course"
          class="course"
          @update:model-value="filter = { ...filter, course: $event }"
        />
        <v-checkbox
          v-for="kind in QUEUE_KINDS"
          :key="kind"
          :label="KIND_NAMES[kind]"
          :model-value="filter.kinds.includes(kind)"
          @update:model-value="toggle(kind, $event)"
        />
      </div>
      <StateNote v-if="queue.shown.length === 0">{{
        hidden ? 'Nothing to mark that this filter shows.' : 'Nothing to mark. New work appears here by itself.'
      }}</StateNote>
      <ul v-else class="rows">
        <li v-for="item in queue.shown.slice(0, pages * PAGE)" :key="item.remark ?? item.submission">
          <router-link
            :to="{
              name: 'desk',
              params: { submission: item.submission },
              ...(item.remark && { hash: `#${item.remark}` }),
            }"
          >
            <strong>{{ item.student }}</strong>
            <span class="quiet">{{ item.title }}</span>
            <v-chip v-if="item.answer">reply</v-chip>
            <v-chip v-for="chip in item.work ? chipsOf(item.work) : []" :key="chip">{{ chip }}</v-chip>
            <span class="figures quiet when">{{ dayAndTime(item.at) }}</span>
            <span v-if="item.answer" class="text">{{
              item.answer.spoken ? 'Answered by voice' : item.answer.text
            }}</span>
          </router-link>
        </li>
      </ul>
      <v-btn v-if="queue.shown.length > pages * PAGE" size="small" @click="pages++">
        Show more ({{ queue.shown.length - pages * PAGE }})
      </v-btn>
      <p v-if="queue.shown.length > 0" class="quiet">At the desk, <kbd>Q</kbd> leads to the next one.</p>
    </section>
    <section aria-labelledby="assignments">
      <h2 id="assignments">Assignments</h2>
      <StateNote v-if="waiting.assignments.length === 0">None of your courses has an assignment yet.</StateNote>
      <TaughtList v-else :assignments="waiting.assignments" />
    </section>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 48px;
}
h2 {
  font-size: 17px;
  font-weight: 650;
  margin-bottom: 8px;
}
.count {
  margin-left: 4px;
  color: var(--quiet);
  font-weight: 400;
}
.filter {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  margin-bottom: 8px;
}
.course {
  flex: 0 1 220px;
}
.text {
  flex-basis: 100%;
}
@media (max-width: 800px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
