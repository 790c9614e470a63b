<script setup lang="ts">
import { ref } from 'vue';
import { useDeed } from '../shell/use-deed.ts';

/** Makes something from its title; all else comes afterwards. */
const props = defineProps<{
  label: string;
  /** Of the button. */
  makes: string;
  make: (title: string) => Promise<unknown>;
}>();

const title = ref('');
const { busy, problem: refused, attempt } = useDeed();

const send = (): Promise<boolean> => attempt(() => props.make(title.value.trim()));
</script>

<template>
  <form class="one-line" @submit.prevent="send">
    <v-text-field v-model="title" :label="label" density="compact" maxlength="200" />
    <v-btn type="submit" variant="outlined" :loading="busy" :disabled="title.trim() === ''">{{ makes }}</v-btn>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
  </form>
</template>
