<script setup lang="ts">
import { makeAssignment } from '#contract/assignments';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import TitleForm from './TitleForm.vue';

/** An assignment from its title. Students see it when its teacher opens it. */
const props = defineProps<{ course: string }>();

const router = useRouter();

async function make(title: string): Promise<void> {
  const { id } = await call(makeAssignment, { params: { course: props.course }, body: { title } });
  await router.push({ name: 'assignment', params: { assignment: id } });
}
</script>

<template>
  <TitleForm label="Title of a new assignment" makes="Make the assignment" :make="make" />
</template>
