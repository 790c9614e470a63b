<script setup lang="ts">
import { urlOf } from '#contract/endpoint';
import { markedFile, type Work } from '#contract/submissions';
import { mdiFileDownloadOutline } from '@mdi/js';
import { computed, defineAsyncComponent, ref, useTemplateRef } from 'vue';
import { useFeedback } from '../feedback/feedback-store.ts';
import { saveAsFile } from '../outbox/save-as-file.ts';
import { callForBytes, Refused, sentenceOf } from '../session/api.ts';
import { nameOfWork } from '../wording/file-names.ts';
import { percent } from '../wording/format.ts';

/** PDF files and pictures with the remarks in them, for any reader of PDF. */
const props = defineProps<{ work: Work }>();

const WorkStage = defineAsyncComponent(() => import('../paper/WorkStage.vue'));
const RemarkPages = defineAsyncComponent(() => import('../paper/RemarkPages.vue'));

const MARKABLE: readonly string[] = ['pdf', 'png', 'jpeg'];
const PROTECTED = 409;

const files = computed(() =>
  props.work.folio.files.flatMap(({ name, format }, position) =>
    MARKABLE.includes(format) ? [{ name, position }] : [],
  ),
);
/** What is no PDF and no picture is laid out on pages here. */
const others = computed(() => {
  const { leaves, files: all } = props.work.folio;
  return leaves.some(({ kind, file }) => kind !== 'sound' && !MARKABLE.includes(all[file]?.format ?? ''));
});
const store = useFeedback();
const remarks = computed(() => store.feedback?.remarks ?? []);
const stage = useTemplateRef<{ root: HTMLElement | null }>('stage');
const list = useTemplateRef<{ root: HTMLElement | null }>('list');
const laidOut = ref<number>();
const busy = ref<number>();
const error = ref<string>();
/** A file of which there can only be a copy. */
const signed = ref<number>();

/** Milliseconds in which the parts that lay out a work must have loaded. */
const PATIENCE = 20_000;

/** The element to be photographed, once it stands in the page. */
async function shown(what: typeof stage): Promise<HTMLElement> {
  const until = performance.now() + PATIENCE;
  while (!what.value?.root) {
    if (performance.now() > until) throw new Error('A part of the page did not load');
    await new Promise((resolve) => setTimeout(resolve, 20));
  }
  return what.value.root;
}

async function save(position: number, name: string, copy = false): Promise<void> {
  busy.value = position;
  error.value = signed.value = undefined;
  const url = urlOf(markedFile, { submission: props.work.id, position: String(position) });
  try {
    const [marked, { withRemarkPages }] = await Promise.all([
      callForBytes(copy ? `${url}?copy=true` : url),
      import('../paper/marked-pdf.ts'),
    ]);
    const file = new Uint8Array(await marked.arrayBuffer());
    const bytes = remarks.value.length > 0 ? await withRemarkPages(file, await shown(list)) : file;
    const ofFile = files.value.length > 1 ? `, ${name.replace(/\.[^.]*$/, '')}` : '';
    savePdf(bytes, `${nameOfWork(props.work)}${ofFile}, marked.pdf`);
  } catch (failure) {
    error.value = sentenceOf(failure);
    if (failure instanceof Refused && failure.problem.status === PROTECTED) signed.value = position;
  } finally {
    busy.value = undefined;
  }
}

async function layOut(): Promise<void> {
  laidOut.value = 0;
  error.value = undefined;
  try {
    const { markedPdf } = await import('../paper/marked-pdf.ts');
    const pdf = await markedPdf({
      ...{ work: props.work, remarks: remarks.value, stage: await shown(stage), list: await shown(list) },
      onProgress: (share) => (laidOut.value = share),
    });
    savePdf(pdf, `${nameOfWork(props.work)}, marked.pdf`);
  } catch {
    error.value = 'The work could not be laid out. Reload the page and try again.';
  } finally {
    laidOut.value = undefined;
  }
}

const savePdf = (bytes: Uint8Array, name: string): void =>
  saveAsFile(new Blob([bytes as Uint8Array<ArrayBuffer>], { type: 'application/pdf' }), name);
</script>

<template>
  <section v-if="files.length > 0 || others" aria-label="Marked files">
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
    <v-btn
      v-if="others"
      size="small"
      variant="outlined"
      class="file"
      :prepend-icon="mdiFileDownloadOutline"
      :disabled="busy !== undefined || laidOut !== undefined"
      @click="layOut"
      >{{ laidOut === undefined ? 'Download as PDF' : `Laying it out … ${percent(laidOut)}`
      }}<span v-if="files.length > 0">: the whole work</span></v-btn
    >
    <WorkStage v-if="laidOut !== undefined" ref="stage" :work="work" />
    <RemarkPages v-if="laidOut !== undefined || busy !== undefined" ref="list" :work="work" :remarks="remarks" />
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
  font-size: 13px;
}
</style>
