<script setup lang="ts">
import { mdiClose } from '@mdi/js';

/** Something that stands where the scores are, for a while. */
defineProps<{ title: string }>();
defineEmits<{ close: [] }>();
</script>

<template>
  <aside class="panel" :aria-label="title">
    <h2>
      {{ title }}
      <v-btn :icon="mdiClose" size="28" :aria-label="`Close: ${title}`" @click="$emit('close')" />
    </h2>
    <slot />
  </aside>
</template>

<style scoped>
.panel {
  padding: 14px 16px;
  overflow-y: auto;
  background: var(--paper);
  border-left: 1px solid var(--hairline);
}
h2 {
  display: flex;
  justify-content: space-between;
  align-items: center;
  font-size: 15px;
}
</style>
