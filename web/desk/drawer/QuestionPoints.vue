<script setup lang="ts">
import { formatHundredths, parseHundredths } from '#core/grading';
import type { Feedback } from '#contract/submissions';
import { computed, ref } from 'vue';
import ScorePart from './ScorePart.vue';

/** The points for the answer to one question. */
const props = defineProps<{
  question: Feedback['questions'][number];
  /** Counted from 1. */
  number: number;
  points: number | undefined;
  disabled: boolean;
}>();
const emit = defineEmits<{ points: [points: number | null] }>();

/** What is being typed, so that news from elsewhere does not wipe it out. */
const draft = ref<string>();
const shown = computed(() => draft.value ?? (props.points === undefined ? '' : formatHundredths(props.points)));
/** What was typed cannot be given. */
const refused = ref(false);

function give(): void {
  if (draft.value === undefined) return;
  const points = draft.value.trim() === '' ? null : parseHundredths(draft.value);
  refused.value = points === undefined || (points !== null && (points < 0 || points > props.question.points));
  if (points === undefined || refused.value) return;
  draft.value = undefined;
  emit('points', points);
}
</script>

<template>
  <ScorePart class="question" :title="`Question ${number}`" :about="question.prompt" :disabled="disabled">
    <div class="given">
      <v-text-field
        inputmode="decimal"
        class="figures"
        density="compact"
        hide-details
        :model-value="shown"
        :aria-label="`Points for question ${number}, of ${formatHundredths(question.points)}`"
        :error="refused"
        @update:model-value="draft = $event"
        @change="give"
        @keydown.enter="($event.target as HTMLInputElement).blur()"
      />
      <span class="figures">of {{ formatHundredths(question.points) }}</span>
      <v-btn size="x-small" variant="outlined" @click="emit('points', question.points)">
        All <span class="visually-hidden">points for question {{ number }}</span>
      </v-btn>
      <v-btn size="x-small" variant="outlined" @click="emit('points', 0)">
        None <span class="visually-hidden">of the points for question {{ number }}</span>
      </v-btn>
    </div>
    <p v-if="refused" class="refused" role="alert">
      A number from 0 to {{ formatHundredths(question.points) }}, with at most two decimals.
    </p>
  </ScorePart>
</template>

<style scoped>
.given {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 4px 0;
}
.given .v-text-field {
  flex: 0 0 76px;
}
.question :deep(.about) {
  display: -webkit-box;
  overflow: hidden;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
}
.refused {
  color: rgb(var(--v-theme-error));
  font-size: 13px;
}
</style>
