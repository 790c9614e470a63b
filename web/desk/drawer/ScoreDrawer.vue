<script setup lang="ts">
import { formatHundredths, gradeOf, parseHundredths, total } from '#core/grading';
import type { Feedback } from '#contract/submissions';
import { computed, ref } from 'vue';
import GradeLine from '../../feedback/GradeLine.vue';

/** The rubric beside the work. Choosing a level gives the total and the grade at once. */
const props = defineProps<{ feedback: Feedback }>();
const emit = defineEmits<{
  score: [criterion: string, level: string | null];
  points: [question: string, points: number | null];
}>();

const returned = computed(() => props.feedback.returnedAt !== null);
const sum = computed(() => total(props.feedback));
const grade = computed(() => props.feedback.grade ?? gradeOf(props.feedback, props.feedback.scale));
const parts = computed(() => props.feedback.rubric.length + props.feedback.questions.length);
/** Questions whose points were typed and cannot be given. */
const refused = ref<Record<string, boolean>>({});

/** What is being typed, so that news from elsewhere does not wipe it out. */
const drafts = ref<Record<string, string>>({});
const shown = (question: string): string => {
  const points = props.feedback.points[question];
  return drafts.value[question] ?? (points === undefined ? '' : formatHundredths(points));
};

function give(question: { id: string; points: number }): void {
  const typed = drafts.value[question.id];
  if (typed === undefined) return;
  const points = typed.trim() === '' ? null : parseHundredths(typed);
  const wrong = points === undefined || (points !== null && (points < 0 || points > question.points));
  refused.value = { ...refused.value, [question.id]: wrong };
  if (wrong) return;
  const { [question.id]: _given, ...others } = drafts.value;
  drafts.value = others;
  emit('points', question.id, points);
}
</script>

<template>
  <aside class="drawer" aria-label="Scores">
    <fieldset v-for="criterion in feedback.rubric" :key="criterion.id" :disabled="returned">
      <legend>{{ criterion.title }}</legend>
      <p class="about">{{ criterion.description }}</p>
      <label
        v-for="level in criterion.levels"
        :key="level.id"
        :class="{ chosen: feedback.scores[criterion.id] === level.id }"
      >
        <input
          type="radio"
          :name="criterion.id"
          :checked="feedback.scores[criterion.id] === level.id"
          @change="$emit('score', criterion.id, level.id)"
        />
        <span class="level">{{ level.title }}</span>
        <span class="figures points">{{ formatHundredths(level.points) }}</span>
        <span class="description">{{ level.description }}</span>
      </label>
      <button
        v-if="feedback.scores[criterion.id] && !returned"
        type="button"
        class="clear"
        @click="$emit('score', criterion.id, null)"
      >
        Clear <span class="visually-hidden">the score for {{ criterion.title }}</span>
      </button>
    </fieldset>
    <fieldset v-for="(question, index) in feedback.questions" :key="question.id" :disabled="returned" class="question">
      <legend>Question {{ index + 1 }}</legend>
      <p class="about">{{ question.prompt }}</p>
      <label class="given">
        <input
          type="text"
          inputmode="decimal"
          class="figures"
          :value="shown(question.id)"
          :aria-label="`Points for question ${index + 1}, of ${formatHundredths(question.points)}`"
          :aria-invalid="refused[question.id]"
          @input="drafts = { ...drafts, [question.id]: ($event.target as HTMLInputElement).value }"
          @change="give(question)"
          @keydown.enter="($event.target as HTMLInputElement).blur()"
        />
        <span class="figures">of {{ formatHundredths(question.points) }}</span>
        <v-btn size="x-small" variant="outlined" @click="emit('points', question.id, question.points)">
          All <span class="visually-hidden">points for question {{ index + 1 }}</span>
        </v-btn>
        <v-btn size="x-small" variant="outlined" @click="emit('points', question.id, 0)">
          None <span class="visually-hidden">of the points for question {{ index + 1 }}</span>
        </v-btn>
      </label>
      <p v-if="refused[question.id]" class="refused" role="alert">
        A number from 0 to {{ formatHundredths(question.points) }}, with at most two decimals.
      </p>
    </fieldset>
    <footer role="status">
      <GradeLine v-if="grade" :grade="grade" />
      <p v-else class="figures">
        {{ formatHundredths(sum.points) }} points so far; {{ sum.missing.length }} of {{ parts }}
        {{ feedback.questions.length > 0 ? 'parts' : 'criteria' }} to score
      </p>
    </footer>
  </aside>
</template>

<style scoped>
.drawer {
  display: flex;
  flex-direction: column;
  gap: 14px;
  padding: 14px 16px;
  overflow-y: auto;
  background: var(--paper);
  border-left: 1px solid var(--hairline);
}
fieldset {
  position: relative;
  border: 0;
  padding: 0;
  min-width: 0;
}
legend {
  font-weight: 650;
}
.about {
  padding-right: 44px;
  color: var(--quiet);
  font-size: 13px;
  margin-bottom: 4px;
}
label {
  display: grid;
  grid-template-columns: 18px 1fr auto;
  gap: 0 6px;
  align-items: center;
  padding: 3px 6px;
  border-radius: 3px;
  cursor: pointer;
}
label.given {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 0;
  cursor: default;
}
.given input {
  width: 4.5em;
  padding: 3px 6px;
  border: 1px solid var(--quiet);
  border-radius: 3px;
}
.question .about {
  display: -webkit-box;
  overflow: hidden;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
}
.refused {
  color: rgb(var(--v-theme-error));
  font-size: 13px;
}
label.chosen {
  background: color-mix(in srgb, var(--ink) 8%, transparent);
  font-weight: 600;
}
label:has(:focus-visible) {
  outline: 2px solid var(--ink);
}
input {
  margin: 0;
  accent-color: var(--ink);
}
.description {
  display: none;
  grid-column: 2 / -1;
  color: var(--quiet);
  font-size: 13px;
  font-weight: 400;
}
label.chosen .description,
label:hover .description,
label:has(:focus-visible) .description {
  display: block;
}
.points {
  color: var(--quiet);
}
.clear {
  position: absolute;
  top: 2px;
  right: 6px;
  color: var(--quiet);
  font-size: 13px;
  text-decoration: underline;
}
footer {
  position: sticky;
  bottom: -14px;
  margin: auto -16px -14px;
  padding: 12px 16px;
  background: var(--paper);
  border-top: 1px solid var(--hairline);
}
</style>
