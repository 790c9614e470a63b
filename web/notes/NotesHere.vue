<script setup lang="ts">
import type { NotePlace } from '#contract/notes';
import NoteCard from './NoteCard.vue';
import { useNotes } from './use-notes.ts';

/** What is said to students in one place. */
const props = defineProps<{ course: string; at: NotePlace; label: string; title?: string }>();
const notes = useNotes(() => props.course);
</script>

<template>
  <NoteCard v-for="note in notes.at(at)" :key="note.id" :note="note" :teaches="false" :label="label" :title="title" />
</template>
