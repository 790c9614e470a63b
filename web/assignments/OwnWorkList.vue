<script setup lang="ts">
import { placedOwnWork } from '#core/workflow';
import { readOwnWork, type OwnWork } from '#contract/assignments';
import { promiseTimeout } from '@vueuse/core';
import { computed } from 'vue';
import { useNoteStore } from '../notes/note-store.ts';
import { call } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { counted, dayAndTime } from '../wording/format.ts';
import OwnWorkCard from './OwnWorkCard.vue';

/** A student's own work, all of it or that of one course: what came back, what is due, what was handed in, what was answered. */
const props = defineProps<{ course?: string }>();

/** Nobody waits longer than that for what is told beside the works. */
const PATIENCE_MILLISECONDS = 2000;

const notes = useNoteStore();
const notesOf = (found: readonly OwnWork[]): Promise<unknown> =>
  Promise.all([...new Set(found.map(({ assignment }) => assignment.courseId))].map(notes.ensure));
const { value, error, load } = useLoaded(async () => {
  const found = await call(readOwnWork);
  // What came later would push down what somebody is about to press.
  if (!value.value) await Promise.race([notesOf(found), promiseTimeout(PATIENCE_MILLISECONDS)]);
  return found;
});
const works = computed(() =>
  value.value?.filter(({ assignment }) => !props.course || assignment.courseId === props.course),
);
const placed = computed(() =>
  placedOwnWork(
    (works.value ?? []).map((work) => ({ ...work.assignment, versions: work.versions, work })),
    new Date().toISOString(),
  ),
);
const TITLES = { back: 'Came back', due: 'To do', handedIn: 'Handed in' };
const PLACES = ['back', 'due', 'handedIn'] as const;
/** One list, so that a work which goes on to its next place keeps what is being typed or said about it. */
const current = computed(() =>
  PLACES.flatMap((place) =>
    placed.value[place].map(({ work }, index, all) => ({
      work,
      ...(index === 0 && { title: TITLES[place], count: all.length }),
    })),
  ),
);
const answers = computed(() =>
  (works.value ?? [])
    .flatMap(({ assignment, answers: some }) => some.map((one) => ({ ...one, title: assignment.title })))
    .toSorted((a, b) => b.at.localeCompare(a.at)),
);
const old = computed(() => placed.value.old.map(({ work }) => work));
</script>

<template>
  <StateNote v-if="!works" :busy="!error" :error="error" @retry="load" />
  <StateNote v-else-if="works.length === 0">There is nothing to do yet. What a teacher sets appears here.</StateNote>
  <Suspense v-else>
    <div class="places">
      <div>
        <template v-for="{ work, title, count } in current" :key="work.assignment.id">
          <h2 v-if="title">
            {{ title }} <span class="figures quiet">{{ count }}</span>
          </h2>
          <OwnWorkCard :work="work" @changed="load" />
        </template>
      </div>
      <div v-if="answers.length > 0" role="group" aria-labelledby="own-answers">
        <h2 id="own-answers">
          Your teachers answered <span class="figures quiet">{{ answers.length }}</span>
        </h2>
        <ul class="answers">
          <li v-for="one in answers" :key="one.remark">
            <router-link :to="{ name: 'returned', params: { submission: one.submission }, hash: `#${one.remark}` }">
              <strong>{{ one.author }}</strong> <span class="quiet">{{ one.title }}, {{ dayAndTime(one.at) }}</span>
              <span class="text">{{ one.spoken ? 'Answered by voice' : one.text }}</span>
            </router-link>
          </li>
        </ul>
      </div>
      <details v-if="old.length > 0" :open="current.length === 0">
        <summary>{{ counted(old.length, 'earlier one') }}</summary>
        <OwnWorkCard v-for="work in old" :key="work.assignment.id" :work="work" @changed="load" />
      </details>
    </div>
    <template #fallback><StateNote :busy="true" /></template>
  </Suspense>
</template>

<style scoped>
.places {
  max-width: 760px;
}
h2 {
  margin: 28px 0 8px;
}
h2:first-child {
  margin-top: 0;
}
summary {
  margin: 28px 0 10px;
  font-weight: 600;
  cursor: pointer;
}
.quiet {
  font-weight: 400;
}
.answers {
  list-style: none;
}
.answers a {
  display: block;
  padding: 10px 0;
  border-top: 1px solid var(--hairline);
  color: inherit;
  text-decoration: none;
}
.answers a:hover .text {
  text-decoration: underline;
}
.text {
  display: block;
  overflow-wrap: anywhere;
}
</style>
