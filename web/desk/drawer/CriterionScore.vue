<script setup lang="ts">
import { formatHundredths } from '#core/grading';
import type { Feedback } from '#contract/submissions';
import ScorePart from './ScorePart.vue';

/** One criterion with its levels. */
defineProps<{ criterion: Feedback['rubric'][number]; chosen: string | null; disabled: boolean }>();
const emit = defineEmits<{ score: [level: string | null] }>();
</script>

<template>
  <ScorePart :title="criterion.title" :about="criterion.description" :disabled="disabled">
    <v-radio-group
      :model-value="chosen"
      :name="criterion.id"
      :disabled="disabled"
      @update:model-value="emit('score', $event)"
    >
      <v-radio
        v-for="level in criterion.levels"
        :key="level.id"
        :value="level.id"
        :class="{ chosen: level.id === chosen }"
      >
        <template #label>
          <span class="level">{{ level.title }}</span>
          <span class="figures points">{{ formatHundredths(level.points) }}</span>
          <span class="description">{{ level.description }}</span>
        </template>
      </v-radio>
    </v-radio-group>
    <button v-if="chosen && !disabled" type="button" class="clear" @click="emit('score', null)">
      Clear <span class="visually-hidden">the score for {{ criterion.title }}</span>
    </button>
  </ScorePart>
</template>

<style scoped>
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
</style>
