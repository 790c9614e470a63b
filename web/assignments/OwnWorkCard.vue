<script setup lang="ts">
import type { OwnWork } from '#contract/assignments';
import { withdrawWork } from '#contract/submissions';
import { computed, defineAsyncComponent, ref } from 'vue';
import { call, sentenceOf } from '../session/api.ts';
import { dayAndTime, listOf } from '../wording/format.ts';
import AnswerForm from './AnswerForm.vue';
import HandIn from '../hand-in/HandIn.vue';

// Most assignments are told in writing alone.
const NotesHere = defineAsyncComponent(() => import('../notes/NotesHere.vue'));
const HandoutList = defineAsyncComponent(() => import('../hand-in/HandoutList.vue'));

/** A student's own work in one assignment. */
const props = defineProps<{ work: OwnWork }>();
const emit = defineEmits<{ changed: [] }>();

type Version = OwnWork['versions'][number];

const assignment = computed(() => props.work.assignment);
const newest = computed(() => props.work.versions.find(({ withdrawnAt }) => withdrawnAt === null));
const returned = computed(() => (newest.value?.returnedAt ? newest.value : undefined));
const others = computed(() => props.work.versions.filter((version) => version !== returned.value));
/** What is done already is done again only on wish. */
const again = ref(false);
const opens = computed(
  () => !assignment.value.aside && assignment.value.attemptsLeft !== 0 && (newest.value === undefined || again.value),
);
const refused = ref<{ submission: string; sentence: string }>();

/** What was said on handing in stays to be read. */
function done(): void {
  again.value = true;
  emit('changed');
}

async function withdraw({ submission }: Version, withdrawn: boolean): Promise<void> {
  refused.value = undefined;
  try {
    await call(withdrawWork, { params: { submission }, body: { withdrawn } });
  } catch (failure) {
    refused.value = { submission, sentence: sentenceOf(failure) };
  }
  emit('changed');
}

const dueWords = computed(() => {
  const { dueAt } = assignment.value;
  if (!dueAt) return '';
  const late = !newest.value && Date.parse(dueAt) < Date.now();
  return late ? `was due ${dayAndTime(dueAt)}; you can still hand it in` : `due ${dayAndTime(dueAt)}`;
});
const heardWords = ({ spoken, heard }: Version): string =>
  spoken === 0 ? '' : heard === 0 ? `${spoken} to hear` : heard < spoken ? `${heard} of ${spoken} heard` : 'all heard';

/** What there is to know before one hands in. */
const ruleWords = computed(() => {
  const { attemptsLeft, formats } = assignment.value;
  return [
    ...(attemptsLeft ? [`You can hand it in ${attemptsLeft === 1 ? 'once' : `${attemptsLeft} times`} more.`] : []),
    ...(formats ? [`Taken as ${listOf(formats)} only.`] : []),
  ].join(' ');
});

const placeFor = (by: 'type' | 'record') => ({
  name: 'hand-in',
  params: { assignment: assignment.value.id },
  query: { by },
});
const nameOf = ({ version, files }: Version): string =>
  `Version ${version}: ${files.length > 0 ? files.join(', ') : 'your answers'}`;
</script>

<template>
  <section class="work">
    <h3>{{ assignment.title }}</h3>
    <p class="quiet">
      {{ assignment.course }}<template v-if="dueWords">, {{ dueWords }}</template>
    </p>
    <p v-if="returned" class="came">
      <v-btn variant="flat" color="primary" :to="{ name: 'returned', params: { submission: returned.submission } }"
        >Open your feedback</v-btn
      >
      <span>{{ heardWords(returned) }}</span>
      <span class="figures quiet">returned {{ dayAndTime(returned.returnedAt!) }}</span>
    </p>
    <p v-if="assignment.brief && opens" class="brief">{{ assignment.brief }}</p>
    <NotesHere
      v-if="opens"
      :course="assignment.courseId"
      :at="{ place: 'instructions', assignment: assignment.id }"
      label="the spoken instructions"
    />
    <HandoutList v-if="assignment.handouts.length > 0" :handouts="assignment.handouts" />
    <ul v-if="others.length > 0" class="versions">
      <li v-for="version in others" :key="version.submission" :class="{ withdrawn: version.withdrawnAt }">
        <span class="name">{{ nameOf(version) }}</span>
        <span class="figures quiet">handed in {{ dayAndTime(version.handedInAt) }}</span>
        <template v-if="version.withdrawnAt">
          <span class="quiet">withdrawn; it is kept for 30 days</span>
          <v-btn size="small" variant="outlined" @click="withdraw(version, false)">Bring it back</v-btn>
        </template>
        <template v-else>
          <v-btn
            variant="outlined"
            size="small"
            :to="{ name: 'returned', params: { submission: version.submission } }"
            >{{ version.returnedAt ? 'Open its feedback' : 'Read it' }}</v-btn
          >
          <span v-if="!version.returnedAt" class="quiet">{{
            version.corrected ? 'your teacher is correcting it, and it comes back' : 'with your teacher'
          }}</span>
          <v-btn v-if="version.canWithdraw" size="small" @click="withdraw(version, true)">Withdraw</v-btn>
        </template>
        <p v-if="refused?.submission === version.submission" class="refused" role="alert">{{ refused.sentence }}</p>
      </li>
    </ul>
    <p v-if="assignment.aside" class="quiet">This course is over; what was returned stays here.</p>
    <p v-else-if="assignment.attemptsLeft === 0" class="quiet">It can be handed in no more often.</p>
    <template v-else-if="opens">
      <AnswerForm
        v-if="assignment.questions.length > 0"
        :course="assignment.courseId"
        :assignment="assignment.id"
        :questions="assignment.questions"
        :again="newest !== undefined"
        @done="done"
      />
      <template v-else>
        <HandIn :assignment="assignment.id" :again="newest !== undefined" @done="done" />
        <p class="ways">
          or <router-link :to="placeFor('type')">type it here</router-link>, or
          <router-link :to="placeFor('record')">record it here</router-link>
        </p>
      </template>
    </template>
    <v-btn
      v-else-if="assignment.questions.length === 0"
      size="small"
      variant="outlined"
      :to="{ name: 'hand-in', params: { assignment: assignment.id } }"
      >Revise it</v-btn
    >
    <v-btn v-else size="small" @click="again = true">Answer once more</v-btn>
    <p v-if="opens && ruleWords" class="quiet">{{ ruleWords }}</p>
  </section>
</template>

<style scoped>
.work {
  padding: 18px 20px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  margin-bottom: 14px;
}
h3 {
  font-family: var(--serif);
  font-weight: 560;
  font-size: 20px;
}
.came {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 16px;
  align-items: center;
  margin: 10px 0;
}
.brief {
  margin: 8px 0 12px;
}
.versions {
  margin-bottom: 8px;
  list-style: none;
}
.ways {
  margin-top: 8px;
  color: var(--quiet);
}
.ways a {
  color: var(--ink);
}
.withdrawn .name {
  text-decoration: line-through;
}
.refused {
  flex-basis: 100%;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 16px;
  padding: 8px 0;
  border-top: 1px solid var(--hairline);
}
@media (max-width: 600px) {
  .work {
    padding: 14px;
  }
}
</style>
