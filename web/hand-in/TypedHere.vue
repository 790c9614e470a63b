<script setup lang="ts">
import { handIn } from '#contract/assignments';
import { countWords } from '#core/folio';
import { fileNameOf } from '#core/text';
import type { Editor } from '@tiptap/core';
import { computed, defineAsyncComponent, ref, shallowRef, watch } from 'vue';
import { call } from '../session/api.ts';
import { forgetSent, sendFiles } from '../session/resumable.ts';
import { useDeed } from '../shell/use-deed.ts';
import { dayAndTime } from '../wording/format.ts';
import { useTyped } from './use-typed.ts';

/** A work that is typed here, and handed in as it stands. */
const props = defineProps<{ assignment: string; title: string; again: boolean }>();
const emit = defineEmits<{ done: [submission: string] }>();

const TypedEditor = defineAsyncComponent(() => import('./TypedEditor.vue'));

const typed = useTyped(props.assignment);
const { opened, state, theirs, refusal } = typed;
const editor = shallowRef<{ editor: Editor | undefined }>();
/** What stands there just now. */
const html = ref('');
watch(opened, (text) => (html.value = text ?? ''), { immediate: true });
const empty = computed(() => {
  const { body } = new DOMParser().parseFromString(html.value, 'text/html');
  return countWords(body.textContent) === 0 && !body.querySelector('[data-latex]');
});
const { busy, problem: error, attempt } = useDeed();

const STATES = {
  loading: 'Looking for what you typed before …',
  saved: 'Everything you typed is saved.',
  saving: 'Saving …',
  waiting: 'The server cannot be reached. What you type is kept in this browser, and saved as soon as it is back.',
  refused: '',
  conflict: '',
} as const;

function write(now: string): void {
  html.value = now;
  typed.write(now);
}

async function send(): Promise<void> {
  await attempt(async () => {
    const { documentOf } = await import('./typed-html.ts');
    const file = new File([documentOf(props.title, html.value)], `${fileNameOf(props.title, 'My text')}.html`, {
      type: 'text/html',
    });
    const uploads = await sendFiles([file], { patient: true }).done;
    const { submission } = await call(handIn, { params: { assignment: props.assignment }, uploads });
    await forgetSent([file]);
    emit('done', submission);
  });
}

defineExpose({ editor: computed(() => editor.value?.editor) });
</script>

<template>
  <div>
    <div class="head">
      <v-btn
        variant="flat"
        color="primary"
        :disabled="busy || empty || state === 'conflict'"
        :loading="busy"
        @click="send"
        >{{ again ? 'Hand in the new version' : 'Hand in' }}</v-btn
      >
      <span class="fine" role="status">{{ STATES[state] }}</span>
    </div>
    <p v-if="refusal ?? error" class="refused" role="alert">{{ refusal ?? error }}</p>
    <div v-if="theirs" class="conflict" role="alert">
      <p>
        This text was also changed in another window, {{ dayAndTime(theirs.changedAt!) }}. Nothing is lost: which one do
        you go on with?
      </p>
      <v-btn size="small" variant="outlined" @click="typed.choose('mine')">The one on this page</v-btn>
      <v-btn size="small" variant="outlined" @click="typed.choose('theirs')">The other one</v-btn>
    </div>
    <TypedEditor v-if="opened !== undefined" ref="editor" :html="opened" @write="write" />
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  margin-bottom: 8px;
}
.conflict {
  padding: 10px 14px;
  border: 1px solid rgb(var(--v-theme-error));
  border-radius: 4px;
}
.conflict .v-btn {
  margin: 8px 8px 0 0;
}
</style>
