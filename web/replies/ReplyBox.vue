<script setup lang="ts">
import { mdiMicrophoneOutline, mdiSendOutline, mdiStop } from '@mdi/js';
import { useLocalStorage } from '@vueuse/core';
import { computed, onBeforeUnmount, watch } from 'vue';
import { useRecorder } from '../recorder/use-recorder.ts';
import { useSpokenTake } from '../recorder/use-spoken-take.ts';
import type { MadeRecording } from '../feedback/use-feedback-actions.ts';
import { useSession } from '../session/session.ts';
import { ANSWER_TAKE } from './answer-take.ts';

/** Answers a remark by voice or text. A text that is not sent yet survives a reload. */
const props = defineProps<{
  submission: string;
  remark: string;
  /** About which it is asked, where there is no remark yet. */
  criterion?: string;
  /** What is asked for. */
  ask?: string;
  /** What one may want to begin with, and what pressing the button for it says. */
  opening?: { label: string; text: string };
  /** Resolves when the answer is safe. */
  send: (reply: { text: string; recording: MadeRecording | null }) => Promise<void>;
}>();

/** Whether an answer is being spoken here. */
const speaking = defineModel<boolean>('speaking', { default: false });

const session = useSession();
const recorder = useRecorder();
const text = useLocalStorage(
  `reply:${session.person?.id}:${props.criterion ? `${props.submission}:${props.criterion}` : props.remark}`,
  '',
);
const answer = useSpokenTake(
  ANSWER_TAKE,
  () => props.submission,
  ({ id, sound, edit }) => props.send({ text: '', recording: { id, sound, edit, draft: null } }),
);
const { speaking: here, problem } = answer;
watch(here, (now) => (speaking.value = now));
const sendable = computed(() => text.value.trim() !== '');

async function sendText(): Promise<void> {
  if (!sendable.value) return;
  await props.send({ text: text.value.trim(), recording: null });
  text.value = '';
}

async function speak(): Promise<void> {
  if (here.value) return answer.hush();
  await answer.speak({ remark: props.remark, criterion: props.criterion });
  recorder.cool();
}

onBeforeUnmount(() => {
  if (here.value) recorder.cool();
});
</script>

<template>
  <div class="box">
    <v-textarea
      v-model="text"
      :placeholder="ask ?? 'Write an answer'"
      :aria-label="ask ?? 'Write an answer'"
      maxlength="20000"
      :disabled="here"
      @keydown.ctrl.enter="sendText"
      @keydown.meta.enter="sendText"
    />
    <v-btn v-if="sendable" :icon="mdiSendOutline" size="36" aria-label="Send the answer" @click="sendText" />
    <v-btn
      v-else
      :icon="here ? mdiStop : mdiMicrophoneOutline"
      size="36"
      :aria-label="here ? 'Stop and send the answer' : 'Speak an answer'"
      @click="speak"
    />
  </div>
  <v-btn v-if="opening && text === '' && !here" size="x-small" @click.stop="text = opening.text">{{
    opening.label
  }}</v-btn>
  <p v-if="here" class="hint" role="status">Recording. Press stop to send your answer.</p>
  <p v-else-if="problem" class="hint">{{ problem }}</p>
</template>

<style scoped>
.box {
  display: flex;
  align-items: center;
  gap: 4px;
  margin-top: 8px;
}
.hint {
  margin-top: 4px;
  color: var(--quiet);
  font-size: 13px;
}
</style>
