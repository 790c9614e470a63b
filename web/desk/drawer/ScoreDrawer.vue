<script setup lang="ts">
import { formatHundredths, outcomeOf, possiblePoints, type Adjustment, type Score } from '#core/grading';
import type { Feedback, Work } from '#contract/submissions';
import type { Standing } from '#contract/grading';
import { computed, defineAsyncComponent } from 'vue';
import GradeLine from '../../feedback/GradeLine.vue';
import { standingWords } from '../../wording/standing.ts';
import CriterionScore from './CriterionScore.vue';
import QuestionPoints from './QuestionPoints.vue';

// Seldom needed, so not loaded with the desk.
const AdjustResult = defineAsyncComponent(() => import('./AdjustResult.vue'));
const StandingFields = defineAsyncComponent(() => import('../../feedback/StandingFields.vue'));

/** The rubric beside the work. Choosing a level gives the total and the grade at once. */
const props = defineProps<{ feedback: Feedback; work: Work }>();
const emit = defineEmits<{
  score: [criterion: string, score: Score | null];
  points: [question: string, points: number | null];
  adjust: [adjustment: Adjustment | null];
  standing: [standing: Standing];
}>();

const returned = computed(() => props.feedback.returnedAt !== null);
const outcome = computed(() => outcomeOf(props.feedback));
const grade = computed(() => (returned.value ? props.feedback.grade : outcome.value.grade));
const parts = computed(() => props.feedback.rubric.length + props.feedback.questions.length);
const whole = computed(() => parts.value === 0);
const flags = computed(() => standingWords(props.feedback.standing, props.feedback.minutesLate > 0));
const aboutCriterion = (id: string) => props.feedback.remarks.filter(({ criterion }) => criterion === id);
</script>

<template>
  <aside class="drawer" aria-label="Scores">
    <CriterionScore
      v-for="criterion in feedback.rubric"
      :key="criterion.id"
      :criterion="criterion"
      :score="feedback.scores[criterion.id] ?? null"
      :remarks="aboutCriterion(criterion.id)"
      :halves="feedback.marking.halfSteps"
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
    <details v-if="!returned" :open="(whole && feedback.marking.possible !== null) || undefined">
      <summary>{{ whole ? 'Points, flag and more time' : 'Extra points, another total, flags' }}</summary>
      <AdjustResult
        :key="work.id"
        :adjustment="feedback.adjustment"
        :whole="whole"
        :possible="possiblePoints(feedback)"
        @adjust="emit('adjust', $event)"
      />
      <StandingFields
        :assignment="work.assignment.id"
        :student="work.student"
        :standing="feedback.standing"
        :nameless="work.nameless"
        @changed="emit('standing', $event)"
      />
    </details>
    <footer role="status">
      <p v-if="flags.length > 0" class="flags">
        <v-chip v-for="flag in flags" :key="flag">{{ flag }}</v-chip>
      </p>
      <GradeLine v-if="grade" :grade="grade" :shown="feedback.marking.shown" />
      <p v-else-if="outcome.missing.length > 0" class="figures">
        {{ formatHundredths(outcome.soFar) }} points so far; {{ outcome.missing.length }} of {{ parts }}
        {{ feedback.questions.length > 0 ? 'parts' : 'criteria' }} to score
      </p>
      <p v-else>{{ returned ? 'Returned without a result.' : outcome.explanation }}</p>
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
summary {
  padding: 4px 0;
  color: var(--quiet);
  font-size: 13px;
  cursor: pointer;
}
.flags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  margin-bottom: 4px;
}
footer {
  position: sticky;
  z-index: 1;
  bottom: -14px;
  margin: auto -16px -14px;
  padding: 12px 16px;
  background: var(--paper);
  border-top: 1px solid var(--hairline);
}
</style>
