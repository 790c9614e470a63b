<script setup lang="ts">
import { mendTranscript } from '#contract/recordings';
import type { Remark } from '#contract/remarks';
import type { ReturnRow } from '#contract/returning';
import { readFeedback } from '#contract/submissions';
import { mdiPause, mdiPlay } from '@mdi/js';
import { computed, nextTick, onBeforeUnmount, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { recordingUrl } from '../player/media-url.ts';
import { usePlayer } from '../player/player.ts';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';

/** Drafts of transcripts, one after another: Enter says that it is right as it stands, and brings the next. */
const props = defineProps<{ rows: readonly ReturnRow[] }>();
const emit = defineEmits<{ done: [] }>();

const player = usePlayer();
const field = useTemplateRef<{ focus: () => void }>('field');
/** What is to be read, as it was when this was opened. */
const waiting = props.rows.flatMap(({ submission, student, findings }) =>
  findings.flatMap((finding) =>
    finding.type === 'unread' ? finding.remarks.map((remark) => ({ submission, student, remark })) : [],
  ),
);
const place = ref(0);
const open = computed(() => waiting[place.value]);
const remark = shallowRef<Remark>();
const text = ref('');
const opening = useDeed();
const { busy, problem, attempt } = useDeed();
let loaded: { submission: string; remarks: Remark[] } | undefined;

watch(open, show, { immediate: true });
onBeforeUnmount(() => player.stop());

async function show(): Promise<void> {
  player.stop();
  const wanted = open.value;
  if (!wanted) return void emit('done');
  await opening.attempt(async () => {
    const { submission } = wanted;
    if (loaded?.submission !== submission)
      loaded = { submission, remarks: (await call(readFeedback, { params: { submission } })).remarks };
    remark.value = loaded.remarks.find(({ id }) => id === wanted.remark);
    // Somebody has taken it away since.
    if (!remark.value?.recording?.transcript) return void place.value++;
    text.value = remark.value.recording.transcript.text;
    await nextTick();
    field.value?.focus();
  });
}

async function right(): Promise<void> {
  const recording = remark.value?.recording;
  if (busy.value || !recording?.transcript || text.value.trim() === '') return;
  const body = { language: recording.transcript.language, text: text.value.trim(), read: true };
  await attempt(async () => {
    await call(mendTranscript, { params: { recording: recording.id }, body });
    place.value++;
  });
}

const playing = computed(() => player.playing.value && player.current.value === remark.value?.recording?.id);
function play(): void {
  const recording = remark.value?.recording;
  if (recording) void player.toggle(recording.id, recordingUrl(recording));
}
</script>

<template>
  <section v-if="open" class="drafts" aria-label="Read the drafts" @keydown.esc="emit('done')">
    <p>
      <strong>{{ open.student }}</strong>
      <span class="figures fine"> {{ place + 1 }} of {{ waiting.length }}</span>
      <span v-if="remark && 'quote' in remark.anchor" class="fine"> about “{{ remark.anchor.quote.exact }}”</span>
    </p>
    <div class="line">
      <v-btn
        :icon="playing ? mdiPause : mdiPlay"
        size="36"
        :aria-label="playing ? 'Pause' : 'Play what was said'"
        @click="play"
      />
      <v-textarea
        ref="field"
        v-model="text"
        rows="2"
        auto-grow
        hide-details
        aria-label="What was made out"
        @keydown.ctrl.enter.prevent.stop="play"
        @keydown.enter.exact.prevent="right"
      />
    </div>
    <p class="buttons">
      <v-btn size="small" variant="flat" color="primary" :loading="busy" @click="right">That is right; next</v-btn>
      <v-btn size="small" @click="place++">Leave it a draft</v-btn>
      <v-btn size="small" @click="emit('done')">Enough</v-btn>
      <span class="fine">Enter: right, next. Ctrl + Enter: play. Escape: enough.</span>
    </p>
    <p v-if="problem ?? opening.problem.value" class="refused" role="alert">{{ problem ?? opening.problem.value }}</p>
  </section>
</template>

<style scoped>
.drafts {
  max-width: 760px;
  margin: 16px 0;
  padding: 14px 16px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
.line {
  display: flex;
  gap: 12px;
  align-items: start;
  margin: 8px 0;
}
.buttons {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
}
</style>
