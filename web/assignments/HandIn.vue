<script setup lang="ts">
import { handIn } from '#contract/assignments';
import { ref } from 'vue';
import { call, sentenceOf } from '../shared/api.ts';
import { useSchool } from '../shared/school.ts';

/** Hands in a file. A refused one leaves everything as it was. */
const props = defineProps<{ assignment: string; again: boolean }>();
const emit = defineEmits<{ done: [] }>();

const school = useSchool();
const busy = ref(false);
const error = ref<string>();
const done = ref<string>();

async function send(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  if (!file) return;
  busy.value = true;
  error.value = undefined;
  done.value = undefined;
  try {
    const { fileBytes } = (await school.load()).limits;
    if (file.size > fileBytes) throw new TooLarge(fileBytes);
    await call(handIn, { params: { assignment: props.assignment }, file, fileName: file.name });
    done.value = `${file.name} has been handed in.`;
    emit('done');
  } catch (failure) {
    error.value = failure instanceof TooLarge ? failure.message : sentenceOf(failure);
  } finally {
    busy.value = false;
    input.value = '';
  }
}

class TooLarge extends Error {
  constructor(limit: number) {
    super(`This file is larger than ${Math.round(limit / 1024 / 1024)} MB. Make its pictures smaller and try again.`);
  }
}
</script>

<template>
  <label class="hand-in" :class="{ busy }">
    <span class="button">{{ busy ? 'Handing in …' : again ? 'Hand in a new version' : 'Hand in your work' }}</span>
    <input type="file" accept=".docx" :disabled="busy" @change="send" />
  </label>
  <span class="quiet">a Word document (.docx)</span>
  <p v-if="error" class="error" role="alert">{{ error }}</p>
  <p v-if="done" role="status">{{ done }}</p>
</template>

<style scoped>
.hand-in {
  display: inline-block;
  margin-right: 12px;
}
.button {
  display: inline-block;
  padding: 6px 14px;
  font-weight: 550;
  border: 1px solid currentColor;
  border-radius: 4px;
  cursor: pointer;
}
input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.hand-in:has(:focus-visible) .button {
  outline: 2px solid var(--ink);
  outline-offset: 2px;
}
.busy .button {
  opacity: 0.6;
}
.quiet {
  color: var(--quiet);
  font-size: 13px;
}
.error {
  margin-top: 8px;
  color: rgb(var(--v-theme-error));
}
</style>
