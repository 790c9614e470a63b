<script setup lang="ts">
import { formatHundredths, gradeOf, total } from '#core/grading';
import type { Feedback } from '#contract/submissions';
import { computed } from 'vue';
import GradeLine from '../shared/GradeLine.vue';

/** The rubric beside the work. Choosing a level gives the total and the grade at once. */
const props = defineProps<{ feedback: Feedback }>();
defineEmits<{ score: [criterion: string, level: string | null] }>();

const returned = computed(() => props.feedback.returnedAt !== null);
const sum = computed(() => total(props.feedback.rubric, props.feedback.scores));
const grade = computed(
  () => props.feedback.grade ?? gradeOf(props.feedback.rubric, props.feedback.scores, props.feedback.scale),
);
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
    <footer role="status">
      <GradeLine v-if="grade" :grade="grade" />
      <p v-else class="figures">
        {{ formatHundredths(sum.points) }} points so far; {{ sum.missing.length }} of
        {{ feedback.rubric.length }} criteria to score
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
  top: 0;
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
