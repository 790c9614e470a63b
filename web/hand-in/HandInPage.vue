<script setup lang="ts">
import { readOwnWork } from '#contract/assignments';
import { useEventListener } from '@vueuse/core';
import { computed, defineAsyncComponent, ref, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { samePlace, useNoteStore } from '../notes/note-store.ts';
import NotesHere from '../notes/NotesHere.vue';
import { call } from '../session/api.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { dayAndTime } from '../wording/format.ts';
import { putSuggestion } from './put-suggestion.ts';
import HandIn from './HandIn.vue';
import HandoutList from './HandoutList.vue';
import HandInReceipt from './HandInReceipt.vue';
import TypedHere from './TypedHere.vue';

/** Where a work is typed, recorded or sent, and revised beside the remarks on the version before. */
const props = defineProps<{ assignment: string }>();

const CheckList = defineAsyncComponent(() => import('./CheckList.vue'));
const RecordHere = defineAsyncComponent(() => import('./RecordHere.vue'));

const WAYS = { type: 'Type it here', record: 'Record it here', files: 'Send files' } as const;
type Way = keyof typeof WAYS;

const route = useRoute();
const router = useRouter();
const {
  value: work,
  error,
  load,
} = useLoaded(
  async () => (await call(readOwnWork)).find(({ assignment }) => assignment.id === props.assignment) ?? null,
  () => props.assignment,
);
const asked = computed(() => work.value?.assignment);
const newest = computed(() => work.value?.versions.find(({ withdrawnAt }) => withdrawnAt === null));
const returned = computed(() => work.value?.versions.find((one) => one.returnedAt && !one.withdrawnAt));

/** What is typed is handed in as a page of the web, what is recorded as sound or film. */
const ways = computed(() => {
  const formats = asked.value?.formats;
  const takes = (...some: string[]): boolean =>
    !formats || some.some((format) => (formats as string[]).includes(format));
  return (Object.keys(WAYS) as Way[]).filter(
    (way) => way === 'files' || (way === 'type' ? takes('html') : takes('webm', 'ogg', 'mp4')),
  );
});
const way = computed<Way>({
  get: () => ways.value.find((one) => one === route.query.by) ?? ways.value[0] ?? 'files',
  set: (by) => void router.replace({ query: { by } }),
});

const instructions = computed(() => ({ place: 'instructions', assignment: props.assignment }) as const);
const notes = useNoteStore();
/** What is spoken there can be said after them. */
const model = computed(
  () =>
    notes.of(asked.value?.courseId ?? '').find(({ at, recording }) => recording && samePlace(at, instructions.value))
      ?.recording ?? undefined,
);

const handedIn = ref<string>();
async function done(submission?: string): Promise<void> {
  await load();
  handedIn.value = submission ?? newest.value?.submission;
}

const typed = useTemplateRef<InstanceType<typeof TypedHere>>('typed');
const putIn = computed(() => {
  const editor = typed.value?.editor;
  return way.value === 'type' && editor ? putSuggestion(editor) : undefined;
});
// A receipt is about what was handed in, not about what is typed next.
useEventListener(window, 'input', () => (handedIn.value = undefined));
</script>

<template>
  <PageFrame :title="asked?.title ?? 'Hand in'">
    <StateNote v-if="work === null">This assignment is not yours, or is not open any more.</StateNote>
    <StateNote v-else-if="!work || !asked" :busy="!error" :error="error" @retry="load" />
    <template v-else>
      <p class="quiet">
        {{ asked.course }}<template v-if="asked.dueAt">, due {{ dayAndTime(asked.dueAt) }}</template>
        <template v-if="asked.dueAt && Date.parse(asked.dueAt) < Date.now()">; you can still hand it in</template>
      </p>
      <p v-if="asked.brief" class="brief">{{ asked.brief }}</p>
      <NotesHere :course="asked.courseId" :at="instructions" label="the spoken instructions" />
      <HandoutList v-if="asked.handouts.length > 0" :handouts="asked.handouts" />
      <StateNote v-if="asked.questions.length > 0"
        >This assignment asks questions: answer them under
        <router-link :to="{ name: 'home' }">Your work</router-link>.</StateNote
      >
      <StateNote v-else-if="asked.aside || asked.attemptsLeft === 0">It can be handed in no more often.</StateNote>
      <div v-else class="columns" :class="{ alone: !returned }">
        <div>
          <v-btn-toggle v-if="ways.length > 1" v-model="way" mandatory class="ways" aria-label="How you hand it in">
            <v-btn v-for="one in ways" :key="one" :value="one" size="small">{{ WAYS[one] }}</v-btn>
          </v-btn-toggle>
          <HandInReceipt v-if="handedIn" class="receipt" :submission="handedIn" />
          <TypedHere
            v-if="way === 'type'"
            ref="typed"
            :assignment="assignment"
            :title="asked.title"
            :again="newest !== undefined"
            @done="done"
          />
          <RecordHere
            v-else-if="way === 'record'"
            :assignment="assignment"
            :title="asked.title"
            :again="newest !== undefined"
            :model="model"
            @done="done"
          />
          <HandIn v-else :assignment="assignment" :again="newest !== undefined" @done="done()" />
        </div>
        <CheckList v-if="returned" :submission="returned.submission" :put-in="putIn" />
      </div>
    </template>
  </PageFrame>
</template>

<style scoped>
.brief {
  max-width: 70ch;
  margin-top: 6px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 320px;
  gap: 28px;
  margin-top: 18px;
}
.columns.alone {
  grid-template-columns: minmax(0, 1fr);
}
.ways {
  margin-bottom: 14px;
}
.receipt {
  margin-bottom: 14px;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
