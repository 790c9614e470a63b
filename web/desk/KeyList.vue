<script setup lang="ts">
import { mdiClose } from '@mdi/js';
import { DESK_KEYS } from './use-desk-keys.ts';

defineEmits<{ close: [] }>();
</script>

<template>
  <aside class="keys" aria-label="Keys">
    <h2>Keys <v-btn :icon="mdiClose" size="28" aria-label="Hide the keys" @click="$emit('close')" /></h2>
    <dl>
      <template v-for="[key, meaning] in DESK_KEYS" :key="key">
        <dt>{{ key }}</dt>
        <dd>{{ meaning }}</dd>
      </template>
    </dl>
  </aside>
</template>

<style scoped>
.keys {
  padding: 14px 16px;
  overflow-y: auto;
  background: var(--paper);
  border-left: 1px solid var(--hairline);
}
h2 {
  display: flex;
  justify-content: space-between;
  font-size: 15px;
}
dt {
  margin-top: 10px;
  font-weight: 600;
}
dd {
  color: var(--quiet);
}
</style>
