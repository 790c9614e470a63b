<script setup lang="ts">
import { urlOf } from '#contract/endpoint';
import { markedFile, type Work } from '#contract/submissions';
import { mdiFileDownloadOutline } from '@mdi/js';
import { computed, ref } from 'vue';
import { saveAsFile } from '../outbox/save-as-file.ts';
import { callForBytes, Refused, sentenceOf } from '../session/api.ts';

/** PDF files and pictures with the remarks in them, for any reader of PDF. */
const props = defineProps<{ work: Work }>();

const MARKABLE: readonly string[] = ['pdf', 'png', 'jpeg'];
const PROTECTED = 409;

const files = computed(() =>
  props.work.folio.files.flatMap(({ name, format }, position) =>
    MARKABLE.includes(format) ? [{ name, position }] : [],
  ),
);
const busy = ref<number>();
const error = ref<string>();
/** A file of which there can only be a copy. */
const signed = ref<number>();

async function save(position: number, name: string, copy = false): Promise<void> {
  busy.value = position;
  error.value = signed.value = undefined;
  const url = urlOf(markedFile, { submission: props.work.id, position: String(position) });
  try {
    const bytes = await callForBytes(copy ? `${url}?copy=true` : url);
    saveAsFile(bytes, `${name.replace(/\.[^.]*$/, '')}, marked.pdf`);
  } catch (failure) {
    error.value = sentenceOf(failure);
    if (failure instanceof Refused && failure.problem.status === PROTECTED) signed.value = position;
  } finally {
    busy.value = undefined;
  }
}
</script>

<template>
  <section v-if="files.length > 0" aria-label="Marked files">
    <h2>With the remarks in it</h2>
    <v-btn
      v-for="{ name, position } in files"
      :key="position"
      size="small"
      variant="outlined"
      class="file"
      :prepend-icon="mdiFileDownloadOutline"
      :loading="busy === position"
      :disabled="busy !== undefined"
      @click="save(position, name, signed === position)"
      >{{ signed === position ? 'Download a copy' : 'Download as PDF'
      }}<span v-if="files.length > 1">: {{ name }}</span></v-btn
    >
    <p v-if="error" class="quiet" role="alert">{{ error }}</p>
  </section>
</template>

<style scoped>
h2 {
  margin-bottom: 6px;
  font-size: 15px;
  font-weight: 650;
}
.file {
  max-width: 100%;
}
.quiet {
  margin-top: 6px;
  color: var(--quiet);
  font-size: 13px;
}
</style>
