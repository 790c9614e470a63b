<script setup lang="ts">
import DeskPanel from './DeskPanel.vue';
import { DESK_KEYS, useLetterKeys } from '../use-desk-keys.ts';

defineEmits<{ close: [] }>();

const letters = useLetterKeys();
</script>

<template>
  <DeskPanel title="Keys" @close="$emit('close')">
    <label>
      <input v-model="letters" type="checkbox" />
      Letters and digits are keys
    </label>
    <p class="quiet">
      Switch them off if they get in the way of a screen reader or of dictation. There is a button for everything.
    </p>
    <dl>
      <template v-for="[key, meaning] in DESK_KEYS" :key="key">
        <dt>{{ key }}</dt>
        <dd>{{ meaning }}</dd>
      </template>
    </dl>
  </DeskPanel>
</template>

<style scoped>
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
input {
  accent-color: var(--ink);
  width: 16px;
  height: 16px;
}
.quiet {
  color: var(--quiet);
  font-size: 13px;
}
dt {
  margin-top: 10px;
  font-weight: 600;
}
dd {
  color: var(--quiet);
}
</style>
