<script setup lang="ts">
import { handInAnswers, keepAnswers, readAnswers, type Question } from '#contract/assignments';
import { isAnswer, type Answers } from '#core/folio';
import { formatHundredths } from '#core/grading';
import { StorageSerializers, useDebounceFn, useLocalStorage } from '@vueuse/core';
import { computed, defineAsyncComponent, onMounted, ref } from 'vue';
import { call } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import { useDeed } from '../shell/use-deed.ts';

/** The questions of an assignment, answered here. What is typed is kept in this browser at once, and on the server soon after. */
const NotesHere = defineAsyncComponent(() => import('../notes/NotesHere.vue'));

const props = defineProps<{ course: string; assignment: string; questions: readonly Question[]; again: boolean }>();
const emit = defineEmits<{ done: [] }>();

const SAVE_MILLISECONDS = 1500;

const session = useSession();
/** Typed in this browser and not kept by the server yet; null where there is nothing. */
const unsaved = useLocalStorage<Answers | null>(`answers:${session.person?.id}:${props.assignment}`, null, {
  serializer: StorageSerializers.object,
});
const kept = ref<Answers>({});
const state = ref<'loading' | 'saved' | 'saving' | 'waiting'>('loading');
const { busy, problem: error, attempt } = useDeed();
const done = ref(false);

const answers = computed<Answers>(() => ({ ...kept.value, ...unsaved.value }));
const wrong = (question: Question): boolean => !isAnswer(question, answers.value[question.id] ?? '');
const answered = computed(() => props.questions.filter(({ id }) => (answers.value[id] ?? '').trim() !== '').length);

onMounted(load);

async function load(): Promise<void> {
  try {
    kept.value = (await call(readAnswers, { params: { assignment: props.assignment } })).answers;
    if (unsaved.value) await save();
    else state.value = 'saved';
  } catch {
    state.value = 'waiting';
    setTimeout(() => void load(), 5000);
  }
}

const saveSoon = useDebounceFn(() => save(), SAVE_MILLISECONDS);

function write(question: string, text: string): void {
  done.value = false;
  unsaved.value = { ...unsaved.value, [question]: text };
  void saveSoon();
}

async function save(): Promise<void> {
  const sent = unsaved.value;
  if (!sent) return;
  state.value = 'saving';
  try {
    const answer = await call(keepAnswers, {
      params: { assignment: props.assignment },
      body: { answers: answers.value },
    });
    kept.value = answer.answers;
    // What was typed meanwhile is saved with the next.
    const open = Object.entries(unsaved.value ?? {}).filter(([id, text]) => sent[id] !== text);
    unsaved.value = open.length > 0 ? Object.fromEntries(open) : null;
    state.value = 'saved';
    if (open.length > 0) void saveSoon();
  } catch {
    state.value = 'waiting';
    setTimeout(() => void save(), 5000);
  }
}

async function handIn(): Promise<void> {
  await attempt(async () => {
    await call(handInAnswers, { params: { assignment: props.assignment }, body: { answers: answers.value } });
    unsaved.value = null;
    kept.value = { ...answers.value };
    done.value = true;
    emit('done');
  });
}

const STATES = {
  loading: 'Looking for what you wrote before …',
  saved: 'Everything you wrote is saved.',
  saving: 'Saving …',
  waiting: 'The server cannot be reached. What you write is kept in this browser and saved as soon as it is back.',
} as const;
</script>

<template>
  <form @submit.prevent="handIn">
    <fieldset v-for="(question, index) in questions" :key="question.id">
      <legend>
        <span class="quiet"
          >Question {{ index + 1 }}, {{ formatHundredths(question.points) }}
          {{ question.points === 100 ? 'point' : 'points' }}</span
        >
        {{ question.prompt }}
      </legend>
      <NotesHere
        :course="course"
        :at="{ place: 'question', assignment, question: question.id }"
        :label="`what is said about question ${index + 1}`"
      />
      <v-radio-group
        v-if="question.kind === 'choice'"
        :model-value="answers[question.id] ?? null"
        @update:model-value="write(question.id, String($event))"
      >
        <v-radio v-for="choice in question.choices" :key="choice" :label="choice" :value="choice" />
      </v-radio-group>
      <v-textarea
        v-else-if="question.kind === 'long'"
        :model-value="answers[question.id] ?? ''"
        rows="4"
        :aria-label="`Answer to question ${index + 1}`"
        maxlength="100000"
        @update:model-value="write(question.id, $event)"
      />
      <v-text-field
        v-else
        :model-value="answers[question.id] ?? ''"
        :class="{ number: question.kind === 'number' }"
        density="compact"
        :inputmode="question.kind === 'number' ? 'decimal' : 'text'"
        :aria-label="`Answer to question ${index + 1}`"
        :error-messages="wrong(question) ? 'A number is written like 3.5, without words.' : []"
        maxlength="2000"
        @update:model-value="write(question.id, String($event ?? ''))"
      />
    </fieldset>
    <div class="row">
      <v-btn type="submit" variant="flat" color="primary" :disabled="busy || answered === 0">
        {{ again ? 'Hand in a new version' : 'Hand in' }}
      </v-btn>
      <span class="figures quiet">{{ answered }} of {{ questions.length }} answered</span>
      <span class="quiet" role="status">{{ STATES[state] }}</span>
    </div>
    <p v-if="error" class="refused" role="alert">{{ error }}</p>
    <p v-if="done" role="status">Your answers have been handed in.</p>
  </form>
</template>

<style scoped>
fieldset {
  margin-bottom: 20px;
  border: 0;
}
legend {
  margin-bottom: 6px;
}
legend .quiet {
  display: block;
}
.number {
  max-width: 220px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
}
.quiet {
  font-size: 13px;
}
.refused {
  margin-top: 8px;
}
</style>
