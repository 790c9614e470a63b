<script setup lang="ts">
import { readTranscriptStates, type Recording } from '#contract/recordings';
import { call } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { dayAndTime, languageName } from '../wording/format.ts';
import { useRecordingActions } from './recording-actions.ts';
import { useLoaded } from '../shell/use-loaded.ts';

/** What the transcript of a remark was before, with a way back to each state. */
const props = defineProps<{ recording: Recording }>();

const actions = useRecordingActions();
const { value, error, load } = useLoaded(
  () => call(readTranscriptStates, { params: { recording: props.recording.id } }),
  () => [props.recording.transcript?.text, props.recording.transcript?.language],
);
type State = NonNullable<typeof value.value>[number];

const origin = ({ source, engine }: State): string => {
  if (source === 'machine') return `draft by ${engine || 'a machine'}`;
  return source === 'bank' ? 'from the bank' : 'written by hand';
};
</script>

<template>
  <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
  <p v-else-if="value.length === 0" class="quiet">These words have never been changed.</p>
  <ol v-else aria-label="Earlier words">
    <li v-for="state in value" :key="state.until">
      <p class="text" :lang="state.language" dir="auto">{{ state.text || '(no words)' }}</p>
      <p class="quiet">
        {{ origin(state) }}, {{ languageName(state.language) }}, until {{ dayAndTime(state.until)
        }}{{ state.changedBy ? ` (${state.changedBy})` : '' }}
        <v-btn size="x-small" variant="outlined" @click="actions.mend(recording, { ...state, read: true })"
          >Put back</v-btn
        >
      </p>
    </li>
  </ol>
</template>

<style scoped>
ol {
  max-height: 240px;
  margin-top: 6px;
  overflow-y: auto;
  list-style: none;
}
li {
  padding: 6px 0;
  border-top: 1px solid var(--hairline);
}
.text {
  font-size: 15px;
  overflow-wrap: anywhere;
}
</style>
