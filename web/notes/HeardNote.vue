<script setup lang="ts">
import type { Note } from '#contract/notes';
import { reportHeard } from '#contract/recordings';
import { computed } from 'vue';
import { useHeard } from '../player/use-heard.ts';
import { call } from '../session/api.ts';
import NoteCard from './NoteCard.vue';
import { useNoteStore } from './note-store.ts';

/** A note as a student has it: the teacher learns that it was heard. */
const props = defineProps<{ course: string; note: Note; label: string; title?: string | undefined }>();

const store = useNoteStore();
useHeard(
  computed(() => (props.note.recording ? [props.note.recording] : [])),
  async (recording, played) => {
    await call(reportHeard, { params: { recording: recording.id }, body: { played } }).catch(() => undefined);
    await store.load(props.course);
  },
);
</script>

<template>
  <NoteCard :note="note" :teaches="false" :label="label" :title="title" />
</template>
