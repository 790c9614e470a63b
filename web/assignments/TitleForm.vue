<script setup lang="ts">
import { ref } from 'vue';
import { sentenceOf } from '../session/api.ts';

/** Makes something from its title; all else comes afterwards. */
const props = defineProps<{
  label: string;
  /** Of the button. */
  makes: string;
  make: (title: string) => Promise<unknown>;
}>();

const title = ref('');
const busy = ref(false);
const refused = ref<string>();

async function send(): Promise<void> {
  busy.value = true;
  refused.value = undefined;
  try {
    await props.make(title.value.trim());
  } catch (failure) {
    refused.value = sentenceOf(failure);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <form class="one-line" @submit.prevent="send">
    <v-text-field v-model="title" :label="label" density="compact" maxlength="200" />
    <v-btn type="submit" variant="outlined" :loading="busy" :disabled="title.trim() === ''">{{ makes }}</v-btn>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
  </form>
</template>
