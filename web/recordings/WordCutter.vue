<script setup lang="ts">
import { keptSeconds, spokenAt, type SoundEdit, type Span } from '#core/audio';
import { fillers, isDoubtful, longPauses, struckSpans, withoutSpans } from '#core/transcript';
import type { Recording } from '#contract/recordings';
import { mdiRedo, mdiUndo } from '@mdi/js';
import { useRefHistory } from '@vueuse/core';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { canRender, decode, renderSound } from '../recorder/sound-work.ts';
import { usePlayer } from '../player/player.ts';
import { recordingUrl, soundBlob } from '../player/media-url.ts';
import { useRecordingActions } from './recording-actions.ts';
import { useOriginalSound } from './use-original-sound.ts';
import { counted, seconds } from '../wording/format.ts';

/** Cuts a recording by striking its words. The recording as it was spoken stays. */
const props = defineProps<{ recording: Recording }>();
const emit = defineEmits<{ close: [] }>();

const actions = useRecordingActions();
const original = useOriginalSound();
const player = usePlayer();
const words = computed(() => props.recording.transcript?.words ?? []);
const state = ref<'ready' | 'working'>('ready');
const problem = ref<string>();
/** Positions of struck words, and pauses that are shortened. */
const struck = ref<number[]>([]);
const shortened = ref(false);
const { undo, redo, canUndo, canRedo } = useRefHistory(struck, { deep: true });
const ums = computed(() => fillers(words.value, props.recording.transcript?.language ?? 'en'));
const pauses = computed(() => longPauses(words.value));
const heard = shallowRef<{ samples: Float32Array<ArrayBuffer>; rate: number }>();
const anchor = ref<number>();

onMounted(async () => {
  try {
    heard.value = await decode(await (await soundBlob(props.recording)).arrayBuffer());
  } catch {
    problem.value = 'The recording could not be opened. Check the network and try again.';
  }
});

const isStruck = (index: number): boolean => struck.value.includes(index);
const setStruck = (indices: readonly number[], on: boolean): void => {
  const others = struck.value.filter((index) => !indices.includes(index));
  struck.value = on ? [...others, ...indices].sort((a, b) => a - b) : others;
};

/** A click strikes a word or takes it back; with Shift, all from the last one to here. */
function toggle(index: number, event: MouseEvent | KeyboardEvent): void {
  const from = event.shiftKey && anchor.value !== undefined ? anchor.value : index;
  const range = Array.from({ length: Math.abs(index - from) + 1 }, (_, k) => Math.min(index, from) + k);
  setStruck(range, event.shiftKey ? true : !isStruck(index));
  anchor.value = index;
}

/** What goes, in seconds of what is heard now. */
const cuts = computed((): Span[] => {
  if (!heard.value) return [];
  const spans = struckSpans(words.value, new Set(struck.value), heard.value);
  return [...spans, ...(shortened.value ? pauses.value : [])].sort((a, b) => a.start - b.start);
});
const left = computed(() => keptSeconds(withoutSpans([{ start: 0, end: props.recording.sound.duration }], cuts.value)));

/** The same in the recording as it was spoken: what was cut before stays cut. */
function edit(): SoundEdit {
  const before = props.recording.edit?.kept ?? [{ start: 0, end: props.recording.sound.duration }];
  const spoken = cuts.value.map(({ start, end }) => ({ start: spokenAt(before, start), end: spokenAt(before, end) }));
  return { kept: withoutSpans(before, spoken), levelled: props.recording.edit?.levelled ?? false };
}

async function keep(): Promise<void> {
  if (cuts.value.length === 0) return emit('close');
  const next = edit();
  if (next.kept.length === 0) {
    problem.value = 'Leave at least something to hear.';
    return;
  }
  state.value = 'working';
  try {
    const { samples, rate } = await decode(await original(props.recording));
    const { blob, sha256, duration, peaks, edit: made } = await renderSound(samples, rate, next);
    const sound = { blob, sha256, duration, peaks, microphone: { type: 'device' as const }, picture: null };
    await actions.setSound(props.recording, sound, made);
    emit('close');
  } catch {
    state.value = 'ready';
    problem.value = 'The sound could not be cut. Your recording has not changed.';
  }
}

const playFrom = (seconds: number): Promise<void> =>
  player.playFrom(props.recording.id, recordingUrl(props.recording), seconds);
</script>

<template>
  <section
    class="cutter"
    aria-label="Cut by words"
    @click.stop
    @keydown.esc.stop="$emit('close')"
    @keydown.ctrl.z.exact.prevent.stop="undo"
    @keydown.ctrl.shift.z.prevent.stop="redo"
  >
    <p v-if="!canRender()" class="fine">This browser cannot edit sound. Use another browser to cut.</p>
    <p v-else-if="words.length === 0" class="fine">
      There is no transcript with word timing yet. Write the transcript first.
    </p>
    <template v-else>
      <div v-if="ums.length > 0 || pauses.length > 0" class="row">
        <v-btn
          v-if="ums.length > 0"
          size="x-small"
          variant="outlined"
          :disabled="ums.every(isStruck)"
          @click="setStruck(ums, true)"
          >Strike {{ ums.length }} “{{ words[ums[0]!]!.word }}”</v-btn
        >
        <v-checkbox
          v-if="pauses.length > 0"
          v-model="shortened"
          :label="`Shorten ${counted(pauses.length, 'long pause')}`"
        />
      </div>
      <p class="words" :lang="recording.transcript?.language" dir="auto">
        <template v-for="(word, index) in words" :key="index"
          ><button
            type="button"
            class="word"
            :class="{ struck: isStruck(index), doubtful: isDoubtful(word) }"
            :aria-pressed="isStruck(index)"
            @click="toggle(index, $event)"
            @dblclick="playFrom(word.start)"
          >
            {{ word.word }}</button
          >{{ ' ' }}</template
        >
      </p>
      <p class="fine figures" role="status">
        {{ seconds(left) }} of {{ seconds(recording.sound.duration) }} are left. Press words to strike them out, with
        Shift all up to there.
      </p>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <div class="row end">
        <v-btn :icon="mdiUndo" size="28" aria-label="Undo" :disabled="!canUndo" @click="undo" />
        <v-btn :icon="mdiRedo" size="28" aria-label="Redo" :disabled="!canRedo" @click="redo" />
        <v-btn size="small" @click="$emit('close')">Leave it as it was</v-btn>
        <v-btn
          size="small"
          variant="flat"
          color="primary"
          :loading="state === 'working'"
          :disabled="!heard"
          @click="keep"
          >Keep</v-btn
        >
      </div>
    </template>
  </section>
</template>

<style scoped>
.cutter {
  margin-top: 8px;
  padding-top: 8px;
  border-top: 1px solid var(--hairline);
}
.words {
  margin: 6px 0;
  line-height: 1.6;
}
.word {
  border-radius: 3px;
  padding: 0 1px;
}
.word:hover {
  background: color-mix(in srgb, var(--kind) 14%, transparent);
}
.struck {
  color: var(--quiet);
  text-decoration: line-through 2px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
}
.end {
  justify-content: flex-end;
  margin-top: 6px;
}
.refused {
  font-size: 13px;
}
</style>
