<script setup lang="ts">
import type { NotePlace } from '#contract/notes';
import { computed, defineAsyncComponent, watch } from 'vue';
import { samePlace, useNoteStore } from './note-store.ts';

/** What is said to students in one place; in most there is nothing. */
const props = defineProps<{ course: string; at: NotePlace; label: string; title?: string }>();

const HeardNote = defineAsyncComponent(() => import('./HeardNote.vue'));

const store = useNoteStore();
const notes = computed(() => store.of(props.course).filter(({ at }) => samePlace(at, props.at)));
watch(
  () => props.course,
  (course) => void store.ensure(course),
  { immediate: true },
);
</script>

<template>
  <HeardNote v-for="note in notes" :key="note.id" :course="course" :note="note" :label="label" :title="title" />
</template>
