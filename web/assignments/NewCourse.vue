<script setup lang="ts">
import { makeCourse } from '#contract/courses';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import { useCourses } from '../session/courses.ts';
import TitleForm from './TitleForm.vue';

/** A course from its title. */
const router = useRouter();
const courses = useCourses();

async function make(title: string): Promise<void> {
  const { id } = await call(makeCourse, { body: { title } });
  await courses.refresh();
  await router.push({ name: 'course', params: { course: id } });
}
</script>

<template>
  <TitleForm label="Title of a new course" makes="Make the course" :make="make" />
</template>
