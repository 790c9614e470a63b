<script setup lang="ts">
import { formatHundredths } from '#core/grading';
import type { Feedback } from '#contract/submissions';
import { computed } from 'vue';
import GradeLine from '../feedback/GradeLine.vue';

/** Scores and grade, as they were returned. */
const props = defineProps<{ feedback: Feedback }>();

const scored = computed(() =>
  props.feedback.rubric.map((criterion) => ({
    ...criterion,
    level: criterion.levels.find(({ id }) => id === props.feedback.scores[criterion.id]),
    best: Math.max(...criterion.levels.map(({ points }) => points)),
  })),
);
</script>

<template>
  <aside class="drawer" aria-label="Scores">
    <GradeLine v-if="feedback.grade" :grade="feedback.grade" />
    <p v-else class="quiet">This work has remarks, but no grade.</p>
    <section v-for="criterion in scored" :key="criterion.id">
      <h2>{{ criterion.title }}</h2>
      <p class="quiet">{{ criterion.description }}</p>
      <template v-if="criterion.level">
        <p class="level">
          <strong>{{ criterion.level.title }}</strong>
          <span class="figures quiet"
            >{{ formatHundredths(criterion.level.points) }} of {{ formatHundredths(criterion.best) }}</span
          >
        </p>
        <p>{{ criterion.level.description }}</p>
      </template>
      <p v-else>No score.</p>
    </section>
    <section v-for="(question, index) in feedback.questions" :key="question.id">
      <h2>Question {{ index + 1 }}</h2>
      <p class="level">
        <span v-if="feedback.points[question.id] === undefined">No score.</span>
        <span v-else class="figures"
          >{{ formatHundredths(feedback.points[question.id]!) }} of {{ formatHundredths(question.points) }} points</span
        >
      </p>
    </section>
  </aside>
</template>

<style scoped>
.drawer {
  display: flex;
  flex-direction: column;
  gap: 20px;
  padding: 18px 16px;
  overflow-y: auto;
  background: var(--paper);
  border-left: 1px solid var(--hairline);
}
h2 {
  font-size: 15px;
  font-weight: 650;
}
.level {
  display: flex;
  justify-content: space-between;
  margin-top: 4px;
}
.quiet {
  color: var(--quiet);
  font-size: 13px;
}
</style>
