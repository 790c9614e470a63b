<script setup lang="ts">
import { readOwnWork, type OwnWork } from '#contract/assignments';
import { withdrawWork } from '#contract/submissions';
import { computed, defineAsyncComponent, ref } from 'vue';
import { call, sentenceOf } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { dayAndTime, listOf } from '../wording/format.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import AnswerForm from './AnswerForm.vue';
import HandIn from './HandIn.vue';

// Most assignments are told in writing alone.
const NotesHere = defineAsyncComponent(() => import('../notes/NotesHere.vue'));

/** A student's own work: all of it, or that of one course. */
const props = defineProps<{ course?: string }>();

type Version = OwnWork['versions'][number];

const { value, error, load } = useLoaded(() => call(readOwnWork));
const works = computed(() =>
  value.value?.filter(({ assignment }) => !props.course || assignment.courseId === props.course),
);
const refused = ref<{ submission: string; sentence: string }>();

async function withdraw({ submission }: Version, withdrawn: boolean): Promise<void> {
  refused.value = undefined;
  try {
    await call(withdrawWork, { params: { submission }, body: { withdrawn } });
  } catch (failure) {
    refused.value = { submission, sentence: sentenceOf(failure) };
  }
  await load();
}

/** What there is to know before one hands in. */
const ruleWords = ({ attemptsLeft, formats }: OwnWork['assignment']): string =>
  [
    ...(attemptsLeft ? [`You can hand it in ${attemptsLeft === 1 ? 'once' : `${attemptsLeft} times`} more.`] : []),
    ...(formats ? [`Taken as ${listOf(formats)} only.`] : []),
  ].join(' ');

const nameOf = ({ version, files }: Version): string =>
  `Version ${version}: ${files.length > 0 ? files.join(', ') : 'your answers'}`;
</script>

<template>
  <StateNote v-if="!works" :busy="!error" :error="error" @retry="load" />
  <StateNote v-else-if="works.length === 0">There is nothing to do yet. What a teacher sets appears here.</StateNote>
  <section v-for="{ assignment, versions } in works" v-else :key="assignment.id" class="work">
    <h2>{{ assignment.title }}</h2>
    <p class="quiet">
      {{ assignment.course }}<template v-if="assignment.dueAt">, due {{ dayAndTime(assignment.dueAt) }}</template>
    </p>
    <p class="brief">{{ assignment.brief }}</p>
    <NotesHere
      :course="assignment.courseId"
      :at="{ place: 'instructions', assignment: assignment.id }"
      label="the spoken instructions"
    />
    <ul v-if="versions.length > 0">
      <li v-for="version in versions" :key="version.submission" :class="{ withdrawn: version.withdrawnAt }">
        <span class="name">{{ nameOf(version) }}</span>
        <span class="figures quiet">handed in {{ dayAndTime(version.handedInAt) }}</span>
        <template v-if="version.withdrawnAt">
          <span class="quiet">withdrawn; it is kept for 30 days</span>
          <v-btn size="small" variant="outlined" @click="withdraw(version, false)">Bring it back</v-btn>
        </template>
        <template v-else>
          <v-btn
            :variant="version.returnedAt ? 'flat' : 'outlined'"
            :color="version.returnedAt ? 'primary' : undefined"
            size="small"
            :to="{ name: 'returned', params: { submission: version.submission } }"
          >
            {{ version.returnedAt ? 'Open your feedback' : 'Read it' }}
          </v-btn>
          <span v-if="!version.returnedAt" class="quiet">with your teacher</span>
          <v-btn v-if="version.canWithdraw" size="small" @click="withdraw(version, true)">Withdraw</v-btn>
        </template>
        <p v-if="refused?.submission === version.submission" class="error" role="alert">{{ refused.sentence }}</p>
      </li>
    </ul>
    <p v-if="assignment.aside" class="quiet">This course is over; what was returned stays here.</p>
    <p v-else-if="assignment.attemptsLeft === 0" class="quiet">It can be handed in no more often.</p>
    <AnswerForm
      v-else-if="assignment.questions.length > 0"
      :course="assignment.courseId"
      :assignment="assignment.id"
      :questions="assignment.questions"
      :again="versions.length > 0"
      @done="load"
    />
    <HandIn v-else :assignment="assignment.id" :again="versions.length > 0" @done="load" />
    <p v-if="!assignment.aside && ruleWords(assignment)" class="quiet">{{ ruleWords(assignment) }}</p>
  </section>
</template>

<style scoped>
.work {
  max-width: 760px;
  padding: 24px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
.work + .work {
  margin-top: 24px;
}
h2 {
  font-family: var(--serif);
  font-weight: 560;
  font-size: 22px;
}
.quiet {
  color: var(--quiet);
}
.brief {
  margin: 8px 0 16px;
}
ul {
  list-style: none;
  margin-bottom: 16px;
}
.withdrawn .name {
  text-decoration: line-through;
}
.error {
  flex-basis: 100%;
  color: rgb(var(--v-theme-error));
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 10px 0;
  border-top: 1px solid var(--hairline);
}
</style>
