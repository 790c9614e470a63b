<script setup lang="ts">
import { formatHundredths, gradeOf, total } from '#core/grading';
import type { Feedback } from '#contract/submissions';
import { computed } from 'vue';
import GradeLine from '../../feedback/GradeLine.vue';
import CriterionScore from './CriterionScore.vue';
import QuestionPoints from './QuestionPoints.vue';

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
</script>

<template>
  <aside class="drawer" aria-label="Scores">
    <CriterionScore
      v-for="criterion in feedback.rubric"
      :key="criterion.id"
      :criterion="criterion"
      :chosen="feedback.scores[criterion.id] ?? null"
      :disabled="returned"
      @score="emit('score', criterion.id, $event)"
    />
    <QuestionPoints
      v-for="(question, index) in feedback.questions"
      :key="question.id"
      :question="question"
      :number="index + 1"
      :points="feedback.points[question.id]"
      :disabled="returned"
      @points="emit('points', question.id, $event)"
    />
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
footer {
  position: sticky;
  bottom: -14px;
  margin: auto -16px -14px;
  padding: 12px 16px;
  background: var(--paper);
  border-top: 1px solid var(--hairline);
}
</style>
