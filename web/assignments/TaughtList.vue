<script setup lang="ts">
import { counted, dayAndTime } from '../wording/format.ts';

/** Assignments as their teachers see them, with how far the class is. */
defineProps<{
  assignments: readonly {
    id: string;
    title: string;
    dueAt: string | null;
    /** Where they are of several courses. */
    course?: string;
    /** It is a second marking. */
    moderation?: string | null;
    /** Students see it. */
    open?: boolean;
    students: number;
    handedIn: number;
    /** They may go out. */
    ready?: number;
    returned: number;
  }[];
}>();
</script>

<template>
  <ul class="rows">
    <li
      v-for="{ id, title, dueAt, course, moderation, open, students, handedIn, ready = 0, returned } in assignments"
      :key="id"
    >
      <router-link :to="{ name: 'assignment', params: { assignment: id } }">
        <strong>{{ title }}</strong>
        <v-chip v-if="open === false">not open yet</v-chip
        ><span class="quiet when">{{ course ?? (dueAt ? `due ${dayAndTime(dueAt)}` : '') }}</span>
        <span class="figures text">{{
          moderation
            ? `${counted(handedIn, 'work')} to mark again`
            : `${handedIn} of ${students} handed in, ${returned} returned`
        }}</span>
      </router-link>
      <router-link v-if="ready > 0" class="ready" :to="{ name: 'return', params: { assignment: id } }"
        >{{ ready }} ready to return</router-link
      >
    </li>
  </ul>
</template>

<style scoped>
.ready {
  display: inline-block;
  padding: 2px 8px 8px;
  text-decoration: underline;
}
.text {
  flex-basis: 100%;
}
</style>
