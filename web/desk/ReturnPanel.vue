<script setup lang="ts">
import { total } from '#core/grading';
import type { Feedback } from '#contract/submissions';
import { onClickOutside } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { sentenceOf } from '../session/api.ts';
import { useOutbox } from '../outbox/outbox.ts';

/** What goes to the student, said once before it goes. */
const props = defineProps<{ feedback: Feedback; student: string; setReturned: (returned: boolean) => Promise<void> }>();

const outbox = useOutbox();
const root = useTemplateRef('root');
const open = ref(false);
const busy = ref(false);
const error = ref<string>();
const returned = computed(() => props.feedback.returnedAt !== null);

const given = computed(() => props.feedback.remarks.filter((remark) => !remark.private));
const remarks = computed(() => given.value.length);
const hidden = computed(() => props.feedback.remarks.length - remarks.value);
const unscored = computed(() => total(props.feedback).missing.length);
const unread = computed(
  () => given.value.filter(({ recording }) => recording?.transcript?.text && !recording.transcript.read).length,
);
const silent = computed(() => given.value.filter(({ recording }) => recording && !recording.transcript?.text).length);

onClickOutside(root, () => (open.value = false));

async function go(next: boolean): Promise<void> {
  busy.value = true;
  error.value = undefined;
  try {
    await props.setReturned(next);
    open.value = false;
  } catch (failure) {
    error.value = sentenceOf(failure);
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <div ref="root" class="return" @keydown.esc.stop="open = false">
    <v-btn
      :variant="returned ? 'outlined' : 'flat'"
      color="primary"
      size="small"
      aria-haspopup="dialog"
      :aria-expanded="open"
      @click="open = !open"
    >
      {{ returned ? 'Take back' : 'Return' }}
    </v-btn>
    <div v-if="open" class="panel" role="dialog" :aria-label="returned ? 'Take back' : 'Return'">
      <template v-if="returned">
        <p>
          {{ student }} will not see the remarks, scores and grade any more until you return them again. Answers are
          kept.
        </p>
      </template>
      <template v-else>
        <p>{{ student }} gets:</p>
        <ul>
          <li>{{ remarks === 0 ? 'no remarks' : remarks === 1 ? '1 remark' : `${remarks} remarks` }}</li>
          <li v-if="unscored > 0">
            no grade, because {{ unscored }} of {{ feedback.rubric.length }} criteria have no score
          </li>
          <li v-else>the scores and the grade</li>
        </ul>
        <p v-if="hidden > 0" class="quiet">
          {{ hidden === 1 ? '1 private note stays' : `${hidden} private notes stay` }} among the teachers.
        </p>
        <p v-if="silent > 0" class="quiet">
          {{ silent === 1 ? '1 remark has' : `${silent} remarks have` }} no transcript.
        </p>
        <p v-if="unread > 0" class="quiet">
          {{ unread === 1 ? '1 transcript is a draft' : `${unread} transcripts are drafts` }} that nobody has read yet.
        </p>
      </template>
      <p v-if="outbox.state.value !== 'saved'" class="quiet">Waiting until everything is saved …</p>
      <p v-if="error" role="alert" class="error">{{ error }}</p>
      <div class="buttons">
        <v-btn size="small" @click="open = false">Not now</v-btn>
        <v-btn
          size="small"
          variant="flat"
          color="primary"
          :loading="busy"
          :disabled="outbox.state.value !== 'saved'"
          @click="go(!returned)"
        >
          {{ returned ? `Take back from ${student}` : `Return to ${student}` }}
        </v-btn>
      </div>
    </div>
  </div>
</template>

<style scoped>
.return {
  position: relative;
}
.panel {
  position: absolute;
  top: calc(100% + 8px);
  right: 0;
  z-index: 1;
  width: 320px;
  padding: 16px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
ul {
  margin: 4px 0 8px;
  padding-left: 20px;
}
.quiet {
  color: var(--quiet);
}
.error {
  color: rgb(var(--v-theme-error));
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
  margin-top: 12px;
}
</style>
