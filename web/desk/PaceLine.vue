<script setup lang="ts">
import type { ClassStates } from '#contract/submissions';
import { useNow } from '@vueuse/core';
import { computed } from 'vue';
import { timeOfDay } from '../wording/format.ts';
import { usePace } from './use-pace.ts';

/** How far the evening is: quietly, and not at all for those who do not want to know. */
const props = defineProps<{ students: ClassStates['students'] }>();

const { shown, paceOf } = usePace();
const pace = paceOf(() => props.students);
const now = useNow({ interval: 15_000 });
const minutes = computed(() => Math.floor(pace.value.spent / 60));
const words = computed(() => {
  const { done, left, toGo } = pace.value;
  const so = `${done} done in ${minutes.value} min`;
  if (left === 0) return `${so}, none left`;
  if (toGo === undefined) return `${so}, ${left} left`;
  return `${so}, ${left} left: about ${timeOfDay(new Date(now.value.getTime() + toGo * 1000))} at this pace`;
});
</script>

<template>
  <p class="pace figures">
    <span v-if="shown">{{ words }}</span>
    <button type="button" :aria-pressed="shown" @click="shown = !shown">
      {{ shown ? 'hide' : 'pace' }}<span class="visually-hidden">{{ shown ? ' the pace' : ': show it' }}</span>
    </button>
  </p>
</template>

<style scoped>
.pace {
  display: flex;
  gap: 8px;
  align-items: center;
  color: var(--quiet);
  font-size: 13px;
  white-space: nowrap;
}
button {
  min-width: 24px;
  min-height: 24px;
  text-decoration: underline dotted;
}
</style>
