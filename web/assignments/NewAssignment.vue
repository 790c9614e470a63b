<script setup lang="ts">
import { makeAssignment } from '#contract/assignments';
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import TitleForm from './TitleForm.vue';

/** An assignment from its title. Students see it when its teacher opens it. */
const props = defineProps<{
  course: string;
  /** Each can be copied. */
  assignments: readonly { id: string; title: string }[];
}>();

const router = useRouter();

const from = ref<string | null>(null);
const choices = computed(() => [
  { title: 'a new one', value: null },
  ...props.assignments.map(({ id, title }) => ({ title: `like “${title}”`, value: id })),
]);

async function make(title: string): Promise<void> {
  const body = { title, ...(from.value && { from: from.value }) };
  const { id } = await call(makeAssignment, { params: { course: props.course }, body });
  await router.push({ name: 'assignment', params: { assignment: id } });
}
</script>

<template>
  <div>
    <TitleForm label="Title of a new assignment" makes="Make the assignment" :make="make" />
    <v-select
      v-if="assignments.length > 0"
      v-model="from"
      :items="choices"
      density="compact"
      hide-details
      aria-label="What the new assignment is made from"
      class="from"
    />
  </div>
</template>

<style scoped>
.from {
  max-width: 320px;
  margin-top: 6px;
}
</style>
