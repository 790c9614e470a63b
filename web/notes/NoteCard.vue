<script setup lang="ts">
import type { Note } from '#contract/notes';
import { mdiContentCut, mdiTrashCanOutline } from '@mdi/js';
import { computed, ref } from 'vue';
import RecordingView from '../recordings/RecordingView.vue';
import { counted, dayAndTime, listOf } from '../wording/format.ts';

/** One note: heard and read by students; mended, cut and put aside by teachers, who see who has heard it. */
const props = defineProps<{ note: Note; teaches: boolean; label: string; title?: string | undefined }>();
defineEmits<{ aside: [] }>();

const cutting = ref(false);
const finished = computed(() => props.note.listeners.filter(({ finishedAt }) => finishedAt));
const begun = computed(() => props.note.listeners.filter(({ finishedAt }) => !finishedAt));
const heard = computed(() => {
  if (props.note.listeners.length === 0) return 'Nobody has listened yet.';
  const parts = [
    ...(finished.value.length > 0 ? [`Heard by ${listOf(finished.value.map(({ name }) => name))}`] : []),
    ...(begun.value.length > 0 ? [`begun by ${listOf(begun.value.map(({ name }) => name))}`] : []),
  ];
  return `${parts.join('; ')}.`;
});
</script>

<template>
  <div class="note" role="group" :aria-label="label">
    <p v-if="title" class="fine">{{ title }}</p>
    <p v-if="note.name && teaches" class="name">{{ note.name }}</p>
    <RecordingView
      v-if="note.recording"
      v-model:cutting="cutting"
      :recording="note.recording"
      :label="label"
      live
      :mendable="teaches"
    />
    <p v-if="note.text" class="text" dir="auto">{{ note.text }}</p>
    <a v-if="note.link" :href="note.link" target="_blank" rel="noreferrer">{{ note.link }}</a>
    <footer>
      <span class="fine">{{ note.author.name }}, {{ dayAndTime(note.madeAt) }}</span>
      <details v-if="teaches && note.recording" class="fine">
        <summary>{{ counted(finished.length, 'student has', 'students have') }} heard it</summary>
        {{ heard }}
      </details>
      <template v-if="teaches">
        <v-btn
          v-if="note.recording && !note.recording.sound.picture"
          :icon="mdiContentCut"
          size="28"
          :aria-label="`Edit the sound of ${label}`"
          :aria-expanded="cutting"
          @click="cutting = !cutting"
        />
        <v-btn :icon="mdiTrashCanOutline" size="28" :aria-label="`Put aside ${label}`" @click="$emit('aside')" />
      </template>
    </footer>
  </div>
</template>

<style scoped>
.note {
  --kind: var(--ink);
  max-width: 640px;
  padding: 10px 12px;
  margin-bottom: 8px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
.name {
  font-weight: 600;
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
footer {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  align-items: center;
  margin-top: 6px;
}
</style>
