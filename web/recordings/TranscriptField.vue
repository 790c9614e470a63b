<script setup lang="ts">
import type { Recording } from '#contract/recordings';
import { StorageSerializers, useLocalStorage } from '@vueuse/core';
import { mdiCheck, mdiFormTextbox, mdiRefresh, mdiTranslate } from '@mdi/js';
import { computed, watch } from 'vue';
import { recordingUrl } from '../player/media-url.ts';
import TranscriptText from '../transcript/TranscriptText.vue';
import { useRecordingActions } from './recording-actions.ts';
import TranscriptEditor from './TranscriptEditor.vue';
import { percent } from '../wording/format.ts';

/** The words of a recording, read and mended in place; or how far making them is. */
const props = defineProps<{ recording: Recording; focused?: boolean }>();

const actions = useRecordingActions();
/** What is being typed; in the browser's storage, so that a closed tab loses nothing. Null while nobody types. */
const draft = useLocalStorage<string | null>(`transcript:${props.recording.id}`, null, {
  serializer: StorageSerializers.object,
});
/** Languages and captions are shown below. */
const talking = defineModel<boolean>('talking', { default: false });
/** Opened by a key too. */
const mending = defineModel<boolean>('mending', { default: false });
watch(mending, (now) => now && draft.value === null && edit());
watch(draft, (now) => (mending.value = now !== null));
const transcript = computed(() => props.recording.transcript);
const written = computed(() => (transcript.value?.text ? transcript.value : undefined));
const listening = computed(() => {
  const { speech } = props.recording;
  return speech?.task === 'transcribe' && (speech.state === 'queued' || speech.state === 'running');
});
/** Of a long recording; a screen reader does not have to say every step. */
const share = computed(() => {
  const { speech } = props.recording;
  return speech?.state === 'running' && speech.progress ? percent(speech.progress) : '';
});
const failed = computed(() => {
  const { speech } = props.recording;
  return speech?.state === 'failed' && speech.task === 'transcribe' && !written.value?.read ? speech : undefined;
});
const origin = computed(() => {
  if (!written.value || written.value.read) return undefined;
  return written.value.engine ? `draft by ${written.value.engine}, not read yet` : 'draft, not read yet';
});

function edit(): void {
  draft.value = transcript.value?.text ?? '';
}

function done(read: boolean): void {
  const text = draft.value?.trim();
  draft.value = null;
  if (text === undefined) return;
  const before = transcript.value;
  const mended = text !== (before?.text ?? '');
  // What somebody wrote themselves they have read.
  const isRead = read || (mended && before?.source !== 'machine') || (before?.read ?? false);
  if (mended || isRead !== (before?.read ?? true)) void actions.mend(props.recording, { text, read: isRead });
}
</script>

<template>
  <TranscriptEditor
    v-if="draft !== null"
    :model-value="draft"
    :recording="recording"
    @update:model-value="draft = $event"
    @done="done"
    @cancel="draft = null"
  />
  <template v-else>
    <TranscriptText
      v-if="written"
      :id="recording.id"
      :url="recordingUrl(recording)"
      :transcript="written"
      :live="focused"
    />
    <p v-else-if="listening" class="fine">
      <span role="status">Listening for the words …</span>
      {{ share }}
    </p>
    <p v-if="failed" class="fine" role="status">{{ failed.reason }}</p>
    <p v-if="written || focused || !listening" class="row">
      <span v-if="origin" class="fine">{{ origin }}</span>
      <span v-else-if="written?.approximate && focused" class="fine">word timing is approximate</span>
      <button v-if="!written" type="button" class="fine link" @click.stop="edit">No transcript yet. Write it</button>
      <template v-else-if="focused">
        <v-btn
          :icon="mdiFormTextbox"
          size="26"
          aria-label="Correct the transcript"
          title="Correct the transcript (W)"
          @click.stop="edit"
        />
        <v-btn
          v-if="!written.read"
          :icon="mdiCheck"
          size="26"
          aria-label="I have read this transcript"
          title="I have read it"
          @click.stop="actions.mend(recording, { text: written.text, read: true })"
        />
      </template>
      <v-btn
        v-if="focused"
        :icon="mdiTranslate"
        size="26"
        aria-label="Languages and captions"
        title="Languages and captions"
        :aria-expanded="talking"
        @click.stop="talking = !talking"
      />
      <v-btn
        v-if="failed"
        :icon="mdiRefresh"
        size="26"
        aria-label="Try the transcript again"
        title="Try again"
        @click.stop="actions.listenAgain(recording)"
      />
    </p>
  </template>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 6px;
}
.link {
  text-decoration: underline dotted;
}
</style>
