<script setup lang="ts">
import { makeCourse } from '#contract/courses';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { call, sentenceOf } from '../session/api.ts';
import { useCourses } from '../session/courses.ts';

/** A course from its title; all else comes afterwards. */
const router = useRouter();
const courses = useCourses();
const title = ref('');
const busy = ref(false);
const refused = ref<string>();

async function make(): Promise<void> {
  busy.value = true;
  refused.value = undefined;
  try {
    const { id } = await call(makeCourse, { body: { title: title.value.trim() } });
    await courses.refresh();
    await router.push({ name: 'course', params: { course: id } });
  } catch (failure) {
    refused.value = sentenceOf(failure);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="one-line" @submit.prevent="make">
    <v-text-field v-model="title" label="Title of a new course" density="compact" maxlength="200" />
    <v-btn type="submit" variant="outlined" :loading="busy" :disabled="title.trim() === ''">Make the course</v-btn>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
  </form>
</template>
