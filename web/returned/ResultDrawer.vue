<script setup lang="ts">
import { bestOf, formatHundredths, pointsOf } from '#core/grading';
import type { Feedback } from '#contract/submissions';
import { computed } from 'vue';
import GradeLine from '../feedback/GradeLine.vue';
import AskAbout from './AskAbout.vue';
import { standingWords } from '../wording/standing.ts';

/** Scores and grade, as they were returned. */
const props = defineProps<{
  feedback: Feedback;
  submission: string;
  /** Nothing is asked here. */
  preview?: boolean;
}>();
defineEmits<{ go: [remark: string] }>();

const scored = computed(() =>
  props.feedback.rubric.map((criterion) => {
    const score = props.feedback.scores[criterion.id];
    const level = score && 'level' in score ? criterion.levels.find(({ id }) => id === score.level) : undefined;
    return { ...criterion, score, level, points: score ? pointsOf(criterion, score) : null, best: bestOf(criterion) };
  }),
);
const flags = computed(() => standingWords(props.feedback.standing, props.feedback.minutesLate > 0));
</script>

<template>
  <aside class="drawer" aria-label="Scores">
    <p v-if="flags.length > 0" class="flags">
      <span v-for="flag in flags" :key="flag" class="flag">{{ flag }}</span>
    </p>
    <p v-if="feedback.held === 'grade'" class="fine">The scores and the grade come later.</p>
    <template v-else>
      <GradeLine v-if="feedback.grade" :grade="feedback.grade" :shown="feedback.marking.shown" />
      <p v-else class="fine">This work has remarks, but no grade.</p>
      <section v-for="criterion in scored" :key="criterion.id">
        <h2>{{ criterion.title }}</h2>
        <p class="fine">{{ criterion.description }}</p>
        <template v-if="criterion.points !== null">
          <p class="level">
            <strong>{{ criterion.level?.title }}</strong>
            <span class="figures fine"
              >{{ formatHundredths(criterion.points) }} of {{ formatHundredths(criterion.best)
              }}{{ criterion.bonus ? ', bonus' : '' }}</span
            >
          </p>
          <p>{{ criterion.level?.description }}</p>
        </template>
        <p v-else>{{ criterion.score ? 'Not assessed: left out.' : 'No score.' }}</p>
        <AskAbout
          :submission="submission"
          :criterion="criterion"
          :remarks="feedback.remarks.filter((remark) => remark.criterion === criterion.id)"
          :preview="preview"
          @go="$emit('go', $event)"
        />
      </section>
      <section v-for="(question, index) in feedback.questions" :key="question.id">
        <h2>Question {{ index + 1 }}</h2>
        <p class="level">
          <span v-if="feedback.points[question.id] === undefined">No score.</span>
          <span v-else class="figures"
            >{{ formatHundredths(feedback.points[question.id]!) }} of
            {{ formatHundredths(question.points) }} points</span
          >
        </p>
      </section>
    </template>
    <slot />
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
.flag {
  padding: 1px 8px;
  border: 1px solid var(--hairline);
  border-radius: 10px;
  font-size: 13px;
}
.flags {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
}
</style>
