<script setup lang="ts">
import { useLetterKeys } from './command.ts';

/** The keys of a page, and the choice to do without letters. */
defineProps<{ commands: readonly { id: string; shown?: string; title: string }[] }>();

const letters = useLetterKeys();
</script>

<template>
  <v-checkbox v-model="letters" label="Letters and digits are keys" />
  <p class="fine">
    Switch them off if they get in the way of a screen reader or dictation. Everything has a button too.
  </p>
  <dl>
    <template v-for="{ id, shown, title } in commands.filter((one) => one.shown)" :key="id">
      <dt>{{ shown }}</dt>
      <dd>{{ title }}</dd>
    </template>
  </dl>
</template>

<style scoped>
dt {
  margin-top: 10px;
  font-weight: 600;
}
dd {
  color: var(--quiet);
}
</style>
