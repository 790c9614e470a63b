<script setup lang="ts">
import { connectCourse, readLaunched } from '#contract/platforms';
import { computed, ref, watch } from 'vue';
import { useRouter } from 'vue-router';
import { call } from '../session/api.ts';
import { useCourses } from '../session/courses.ts';
import PageFrame from '../shell/PageFrame.vue';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';

/** Somebody has come from a course of a platform of which nobody has said yet which course it is here. */
const props = defineProps<{ context: string }>();

const router = useRouter();
const courses = useCourses();
const params = computed(() => ({ context: props.context }));
const { value, error, load } = useLoaded(
  () => call(readLaunched, { params: params.value }),
  () => props.context,
);
/** Null for a new one. */
const chosen = ref<string | null>(null);
watch(value, (now) => {
  if (now?.course) void router.replace({ name: 'course', params: { course: now.course } });
  chosen.value = now?.courses.find(({ title }) => title === now.title)?.id ?? null;
});
const { busy, problem, attempt } = useDeed();

async function connect(): Promise<void> {
  await attempt(async () => {
    const { course } = await call(connectCourse, { params: params.value, body: { course: chosen.value } });
    await courses.refresh();
    await router.replace({ name: 'course', params: { course } });
  });
}
</script>

<template>
  <PageFrame :title="value?.title ?? 'One moment'">
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <StateNote v-else-if="!value.teaches"
      >Your teacher has not connected this course yet. Come again from {{ value.platform }} when they have.</StateNote
    >
    <form v-else @submit.prevent="connect">
      <p class="wide">
        You come from “{{ value.title }}” on {{ value.platform }}. Say once which course that is here; from then on
        everybody who opens it there comes straight in.
      </p>
      <v-radio-group v-model="chosen" hide-details label="Which course is it?">
        <v-radio v-for="{ id, title } in value.courses" :key="id" :value="id" :label="title" />
        <v-radio :value="null" :label="`A new one, called “${value.title}”`" />
      </v-radio-group>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <v-btn type="submit" variant="flat" color="primary" :loading="busy">Connect it</v-btn>
    </form>
  </PageFrame>
</template>

<style scoped>
form {
  display: grid;
  gap: 14px;
  justify-items: start;
}
.wide {
  max-width: 68ch;
}
</style>
