<script setup lang="ts">
import type { Feedback } from '#contract/submissions';
import PointsField from './PointsField.vue';
import ScorePart from './ScorePart.vue';

/** The points for the answer to one question. */
defineProps<{
  question: Feedback['questions'][number];
  /** Counted from 1. */
  number: number;
  points: number | undefined;
  disabled: boolean;
}>();
const emit = defineEmits<{ points: [points: number | null] }>();
</script>

<template>
  <ScorePart
    class="question"
    :title="`Question ${number}`"
    :about="question.prompt"
    :disabled="disabled"
    :open="points === undefined"
  >
    <PointsField
      :label="`Points for question ${number}`"
      :points="points ?? null"
      :most="question.points"
      @points="emit('points', $event)"
    >
      <v-btn size="x-small" variant="outlined" @click="emit('points', question.points)">
        All <span class="visually-hidden">points for question {{ number }}</span>
      </v-btn>
      <v-btn size="x-small" variant="outlined" @click="emit('points', 0)">
        None <span class="visually-hidden">of the points for question {{ number }}</span>
      </v-btn>
    </PointsField>
  </ScorePart>
</template>

<style scoped>
.question :deep(.about) {
  display: -webkit-box;
  overflow: hidden;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
}
</style>
