<script setup lang="ts">
import { saveAsFile } from '../outbox/save-as-file.ts';
import { dayAndTime } from '../wording/format.ts';
import type { UnfinishedTake } from './takes.ts';

/** A recording that broke off because the page went away. `keep` says what can be done with it. */
defineProps<{ take: UnfinishedTake; keep: string }>();
defineEmits<{ keep: []; drop: [] }>();
</script>

<template>
  <section class="take" aria-label="Interrupted recording">
    <p>Your recording from {{ dayAndTime(take.startedAt) }} was cut short. Everything up to then is still here.</p>
    <v-btn v-if="take.about !== undefined" size="small" variant="flat" color="primary" @click="$emit('keep')">{{
      keep
    }}</v-btn>
    <v-btn v-else size="small" variant="flat" color="primary" @click="saveAsFile(take.blob, 'interrupted recording')"
      >Save it as a file</v-btn
    >
    <v-btn size="small" @click="$emit('drop')">Throw it away</v-btn>
  </section>
</template>

<style scoped>
.take {
  padding: 10px;
  margin-bottom: 12px;
  border: 1px dashed var(--quiet);
  border-radius: 4px;
}
p {
  margin-bottom: 8px;
}
</style>
