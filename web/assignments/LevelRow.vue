<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import type { LevelDraft } from './rubric-draft.ts';

/** One level of a criterion: its name, its points, and what it means. */
defineProps<{ name: string }>();
defineEmits<{ remove: [] }>();
const level = defineModel<LevelDraft>({ required: true });

const set = (change: Partial<LevelDraft>): void => void (level.value = { ...level.value, ...change });
</script>

<template>
  <div class="level">
    <div class="head">
      <v-text-field
        density="compact"
        maxlength="200"
        :aria-label="`Name of ${name}`"
        :model-value="level.title"
        @update:model-value="set({ title: $event })"
      />
      <v-text-field
        class="points"
        density="compact"
        inputmode="decimal"
        placeholder="0"
        :aria-label="`Points of ${name}`"
        :model-value="level.points"
        @update:model-value="set({ points: $event })"
      />
      <v-btn :icon="mdiClose" size="28" :aria-label="`Remove ${name}`" @click="$emit('remove')" />
    </div>
    <v-textarea
      rows="2"
      maxlength="2000"
      placeholder="What a work at this level is like"
      :aria-label="`Description of ${name}`"
      :model-value="level.description"
      @update:model-value="set({ description: $event })"
    />
  </div>
</template>

<style scoped>
.level {
  display: grid;
  gap: 4px;
}
.head {
  display: flex;
  gap: 4px;
  align-items: center;
}
.points {
  flex: 0 0 64px;
}
</style>
