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
      <v-radio-group
        :model-value="feedback.scores[criterion.id] ?? null"
        :name="criterion.id"
        :disabled="returned"
        @update:model-value="$emit('score', criterion.id, $event)"
      >
        <v-radio
          v-for="level in criterion.levels"
          :key="level.id"
          :value="level.id"
          :class="{ chosen: feedback.scores[criterion.id] === level.id }"
        >
          <template #label>
            <span class="level">{{ level.title }}</span>
            <span class="figures points">{{ formatHundredths(level.points) }}</span>
            <span class="description">{{ level.description }}</span>
          </template>
        </v-radio>
      </v-radio-group>
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
      <div class="given">
        <v-text-field
          inputmode="decimal"
          class="figures"
          density="compact"
          hide-details
          :model-value="shown(question.id)"
          :aria-label="`Points for question ${index + 1}, of ${formatHundredths(question.points)}`"
          :error="refused[question.id] === true"
          @update:model-value="drafts = { ...drafts, [question.id]: $event }"
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
      </div>
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
  padding: 0;
  font-weight: 650;
}
.about {
  padding-right: 44px;
  color: var(--quiet);
  font-size: 13px;
  margin-bottom: 4px;
}
.v-radio {
  align-items: start;
  border-radius: 3px;
}
.v-radio :deep(.v-label) {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 0 6px;
  width: 100%;
  padding: 5px 6px 5px 0;
  opacity: 1;
}
.v-radio :deep(.v-selection-control__wrapper) {
  height: 28px;
}
.given {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 0;
}
.given .v-text-field {
  flex: 0 0 76px;
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
.chosen {
  background: color-mix(in srgb, var(--ink) 8%, transparent);
}
.chosen .level {
  font-weight: 600;
}
.description {
  display: none;
  grid-column: 1 / -1;
  color: var(--quiet);
  font-size: 13px;
}
.chosen .description,
.v-radio:hover .description,
.v-radio:focus-within .description {
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
