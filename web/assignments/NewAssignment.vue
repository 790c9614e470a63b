<script setup lang="ts">
import { makeAssignment } from '#contract/assignments';
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { call, sentenceOf } from '../session/api.ts';

/** An assignment from its title. Students see it when its teacher opens it. */
const props = defineProps<{ course: string }>();

const router = useRouter();
const title = ref('');
const busy = ref(false);
const refused = ref<string>();

async function make(): Promise<void> {
  busy.value = true;
  refused.value = undefined;
  try {
    const { id } = await call(makeAssignment, {
      params: { course: props.course },
      body: { title: title.value.trim() },
    });
    await router.push({ name: 'assignment', params: { assignment: id } });
  } catch (failure) {
    refused.value = sentenceOf(failure);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="one-line" @submit.prevent="make">
    <v-text-field v-model="title" label="Title of a new assignment" density="compact" maxlength="200" />
    <v-btn type="submit" variant="outlined" :loading="busy" :disabled="title.trim() === ''">Make the assignment</v-btn>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
  </form>
</template>
