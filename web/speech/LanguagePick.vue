<script setup lang="ts">
import { COMMON_LANGUAGES, languageName } from '../transcript/language.ts';

/** A language that is spoken. */
defineProps<{
  label: string;
  /** What stands for no choice of one's own. */
  none?: string;
}>();
const language = defineModel<string | null>({ required: true });
</script>

<template>
  <label class="line">
    <span>{{ label }}</span>
    <select :value="language ?? ''" @change="language = ($event.target as HTMLSelectElement).value || null">
      <option v-if="none" value="">{{ none }}</option>
      <option v-for="tag in new Set([...(language ? [language] : []), ...COMMON_LANGUAGES])" :key="tag" :value="tag">
        {{ languageName(tag) }}
      </option>
    </select>
  </label>
</template>

<style scoped>
.line {
  display: grid;
  grid-template-columns: minmax(0, 20rem) minmax(0, 16rem);
  align-items: center;
  gap: 16px;
  padding: 6px 0;
}
select {
  padding: 6px;
  border: 1px solid var(--quiet);
  border-radius: 4px;
  background: var(--paper);
  color: var(--ink);
}
</style>
