<script setup lang="ts">
import { Encoding, type ReadNote } from '#contract/uploads';
import { ENCODING_NAMES } from '../wording/encodings.ts';

/** What a student should know about how their files were read, and how a text may be read in another way. */
defineProps<{ notes: ReadNote[]; busy: boolean }>();
const emit = defineEmits<{ readAs: [note: ReadNote, encoding: Encoding] }>();

const CHOICES = Encoding.options.map((value) => ({ value, title: ENCODING_NAMES[value] }));
</script>

<template>
  <ul class="notes">
    <li v-for="note in notes" :key="note.file + note.note">
      <p>
        <strong>{{ note.file }}:</strong> {{ note.note }}
      </p>
      <v-select
        v-if="note.encoding"
        :items="CHOICES"
        :model-value="note.encoding"
        :disabled="busy"
        :label="`How the letters of ${note.file} are stored`"
        density="compact"
        hide-details
        @update:model-value="emit('readAs', note, $event as Encoding)"
      />
    </li>
  </ul>
</template>

<style scoped>
.notes {
  margin-top: 8px;
  list-style: none;
}
.notes p {
  margin-bottom: 8px;
  overflow-wrap: anywhere;
}
.notes :deep(.v-select) {
  max-width: 420px;
  margin-bottom: 10px;
}
</style>
