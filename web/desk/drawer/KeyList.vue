<script setup lang="ts">
import DeskPanel from './DeskPanel.vue';
import { COMMANDS, useLetterKeys } from '../commands.ts';

defineEmits<{ close: [] }>();

const KEYS = COMMANDS.filter(({ shown }) => shown);
const letters = useLetterKeys();
</script>

<template>
  <DeskPanel title="Keys" @close="$emit('close')">
    <v-checkbox v-model="letters" label="Letters and digits are keys" />
    <p class="quiet">
      Switch them off if they get in the way of a screen reader or dictation. Everything has a button too.
    </p>
    <dl>
      <template v-for="{ id, shown, title } in KEYS" :key="id">
        <dt>{{ shown }}</dt>
        <dd>{{ title }}</dd>
      </template>
    </dl>
  </DeskPanel>
</template>

<style scoped>
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
