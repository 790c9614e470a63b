<script setup lang="ts">
import { QUEUE_KINDS, type QueueKind } from '#core/workflow';
import { readWaiting, type Waited } from '#contract/waiting';
import { storeToRefs } from 'pinia';
import { computed, ref } from 'vue';
import { useQueueFilter } from '../feedback/queue.ts';
import { call } from '../session/api.ts';
import { useCourses } from '../session/courses.ts';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { dayAndTime, listOf } from '../wording/format.ts';
import { standingWords } from '../wording/standing.ts';
import { WORK_STATES } from '../wording/work-state.ts';
import TaughtList from './TaughtList.vue';

/** What waits for a teacher: one queue over all courses, and the assignments. */
const { courses } = storeToRefs(useCourses());
const filter = useQueueFilter();
/** More than that nobody reads at once. */
const PAGE = 50;
const pages = ref(1);
const {
  value: queue,
  error,
  load,
} = useLoaded(() => call(readWaiting, { body: { ...filter.value, most: pages.value * PAGE } }), [filter, pages]);

const KIND_NAMES: Record<QueueKind, string> = { new: 'new', back: 'back again', reply: 'replies' };

const chipsOf = (work: NonNullable<Waited['work']>): string[] => [
  ...(work.version > 1 ? [`version ${work.version}`] : []),
  ...(work.state === 'waiting' ? [] : [WORK_STATES[work.state].name]),
  ...(work.dealt ? [`${work.dealt.done} of ${work.dealt.of} dealt with`] : []),
  ...standingWords(work.standing, work.late),
];
const hidden = computed(() => {
  const { hiddenByCourse = 0, hiddenByKind = 0 } = queue.value ?? {};
  const parts = [
    ...(hiddenByCourse > 0 ? [`${hiddenByCourse} hidden by course`] : []),
    ...(hiddenByKind > 0 ? [`${hiddenByKind} by kind`] : []),
  ];
  return parts.length > 0 ? `; ${listOf(parts)}` : '';
});
const count = computed(() => {
  const { shown = 0, hiddenByCourse = 0, hiddenByKind = 0 } = queue.value ?? {};
  const all = shown + hiddenByCourse + hiddenByKind;
  return shown === all ? String(all) : `${shown} of ${all}`;
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
  <StateNote v-if="!queue || error" :busy="!error" :error="error" @retry="load" />
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
      <StateNote v-if="queue.shown === 0">{{
        hidden ? 'Nothing to mark that this filter shows.' : 'Nothing to mark. New work appears here by itself.'
      }}</StateNote>
      <ul v-else class="rows">
        <li v-for="item in queue.items" :key="item.answer?.remark ?? item.submission">
          <router-link
            :to="{
              name: 'desk',
              params: { submission: item.submission },
              ...(item.answer && { hash: `#${item.answer.remark}` }),
            }"
          >
            <strong>{{ item.student }}</strong>
            <span class="quiet">{{ item.assignment }}</span>
            <v-chip v-if="item.answer">reply</v-chip>
            <v-chip v-for="chip in item.work ? chipsOf(item.work) : []" :key="chip">{{ chip }}</v-chip>
            <span class="figures quiet when">{{ dayAndTime(item.at) }}</span>
            <span v-if="item.answer" class="text">{{
              item.answer.spoken ? 'Answered by voice' : item.answer.text
            }}</span>
          </router-link>
        </li>
      </ul>
      <v-btn v-if="queue.shown > queue.items.length" size="small" @click="pages++">
        Show more ({{ queue.shown - queue.items.length }})
      </v-btn>
      <p v-if="queue.shown > 0" class="quiet">At the desk, <kbd>Q</kbd> leads to the next one.</p>
    </section>
    <section aria-labelledby="assignments">
      <h2 id="assignments">Assignments</h2>
      <StateNote v-if="queue.assignments.length === 0">None of your courses has an assignment yet.</StateNote>
      <TaughtList v-else :assignments="queue.assignments" />
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
