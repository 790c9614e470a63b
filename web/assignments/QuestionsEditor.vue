<script setup lang="ts">
import { formatHundredths, parseHundredths } from '#core/grading';
import { setQuestions, type Question } from '#contract/assignments';
import { mdiArrowDown, mdiArrowUp, mdiDrag, mdiTrashCanOutline } from '@mdi/js';
import { useSortable } from '@vueuse/integrations/useSortable';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';

/** The questions of an assignment: work that is typed here instead of handed in as a file. */
const props = defineProps<{ assignment: string; questions: readonly Question[] }>();
const emit = defineEmits<{ changed: [] }>();

interface Draft extends Omit<Question, 'points' | 'choices'> {
  /** As they are typed. */
  points: string;
  choices: string;
}

const KINDS = [
  { value: 'short', title: 'Short answer' },
  { value: 'long', title: 'Long answer' },
  { value: 'number', title: 'Number' },
  { value: 'choice', title: 'Choice' },
];

const draftOf = (one: Question): Draft => ({
  ...one,
  points: formatHundredths(one.points),
  choices: one.choices.join('\n'),
});
const choicesIn = (text: string): string[] =>
  text
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

const isSame = (written: readonly Draft[], questions: readonly Question[]): boolean =>
  JSON.stringify(written) === JSON.stringify(questions.map(draftOf));

const drafts = ref<Draft[]>([]);
const { busy, problem, attempt } = useDeed();
watch(
  () => props.questions,
  (now, before) => {
    // What is being written meanwhile stays.
    if (!before || isSame(drafts.value, before)) drafts.value = now.map(draftOf);
  },
  { immediate: true },
);
const changed = computed(() => !isSame(drafts.value, props.questions));

/** What is wrong with one, as a sentence. */
function wrong({ prompt, points, kind, choices }: Draft): string | undefined {
  if (prompt.trim() === '') return 'Write the question.';
  const value = parseHundredths(points);
  if (value === undefined || value < 0 || value > 100_000) return 'Points are a number from 0 to 1000, like 2 or 2.5.';
  if (kind === 'choice' && choicesIn(choices).length < 2)
    return 'Give at least two answers to choose from, one a line.';
  return undefined;
}

async function add(): Promise<void> {
  drafts.value.push({ id: crypto.randomUUID(), kind: 'short', prompt: '', choices: '', points: '1' });
  await nextTick();
  document.querySelector<HTMLTextAreaElement>('.questions li:last-of-type textarea')?.focus();
}

// By key there are the arrows beside each.
useSortable(useTemplateRef('list'), drafts, { handle: '.handle', watchElement: true });
/** What is kept already can be spoken about. */
const isKept = ({ id }: Draft): boolean => props.questions.some((one) => one.id === id);

function move(index: number, by: 1 | -1): void {
  const [one] = drafts.value.splice(index, 1);
  drafts.value.splice(index + by, 0, one!);
}

async function save(): Promise<void> {
  problem.value = undefined;
  const first = drafts.value.findIndex((one) => wrong(one) !== undefined);
  if (first >= 0) {
    problem.value = `Question ${first + 1}: ${wrong(drafts.value[first]!)}`;
    return;
  }
  await attempt(async () => {
    const kept = await call(setQuestions, {
      params: { assignment: props.assignment },
      body: {
        questions: drafts.value.map(({ points, choices, ...one }) => ({
          ...one,
          prompt: one.prompt.trim(),
          points: parseHundredths(points)!,
          choices: one.kind === 'choice' ? choicesIn(choices) : [],
        })),
      },
    });
    drafts.value = kept.questions.map(draftOf);
    emit('changed');
  });
}
</script>

<template>
  <form class="questions" aria-label="Questions" @submit.prevent="save">
    <ol ref="list">
      <li v-for="(one, index) in drafts" :key="one.id">
        <div class="row">
          <v-icon :icon="mdiDrag" class="handle" title="Drag to another place" />
          <strong>Question {{ index + 1 }}</strong>
          <v-select
            v-model="one.kind"
            class="kind"
            density="compact"
            :aria-label="`Kind of question ${index + 1}`"
            :items="KINDS"
          />
          <v-text-field
            v-model="one.points"
            class="points"
            density="compact"
            suffix="points"
            inputmode="decimal"
            :aria-label="`Points of question ${index + 1}`"
          />
          <v-btn
            :icon="mdiArrowUp"
            size="30"
            :disabled="index === 0"
            :aria-label="`Move question ${index + 1} up`"
            @click="move(index, -1)"
          />
          <v-btn
            :icon="mdiArrowDown"
            size="30"
            :disabled="index === drafts.length - 1"
            :aria-label="`Move question ${index + 1} down`"
            @click="move(index, 1)"
          />
          <v-btn
            :icon="mdiTrashCanOutline"
            size="30"
            :aria-label="`Remove question ${index + 1}`"
            @click="drafts.splice(index, 1)"
          />
        </div>
        <v-textarea v-model="one.prompt" :aria-label="`Text of question ${index + 1}`" rows="1" maxlength="5000" />
        <v-textarea
          v-if="one.kind === 'choice'"
          v-model="one.choices"
          class="choices"
          label="Answers to choose from, one a line"
          rows="2"
        />
        <slot v-if="isKept(one)" :question="one.id" :number="index + 1" />
        <p v-else class="quiet">Once the questions are saved, you can speak this one too.</p>
      </li>
    </ol>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <div class="row">
      <v-btn variant="outlined" @click="add">Add a question</v-btn>
      <v-btn v-if="changed" type="submit" variant="flat" color="primary" :loading="busy">Save the questions</v-btn>
      <v-btn v-if="changed" @click="drafts = questions.map(draftOf)">Leave them as they were</v-btn>
    </div>
  </form>
</template>

<style scoped>
.questions {
  max-width: 760px;
}
ol {
  list-style: none;
}
li {
  padding: 10px 0;
  border-top: 1px solid var(--hairline);
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
  margin-bottom: 6px;
}
.handle {
  cursor: grab;
  color: var(--quiet);
}
.kind {
  flex: 0 0 160px;
}
.points {
  flex: 0 0 130px;
}
.choices {
  margin-top: 8px;
}
.refused {
  margin-bottom: 8px;
}
</style>
