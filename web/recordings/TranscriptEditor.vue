<script setup lang="ts">
import { carried, isDoubtful, tokens, wordAt } from '#core/transcript';
import type { Recording } from '#contract/recordings';
import { MOST_SAID } from '#contract/transcripts';
import { mdiCheck, mdiPause, mdiPlay, mdiRewind, mdiSkipNext } from '@mdi/js';
import caretCoordinates from 'textarea-caret';
import { computed, nextTick, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue';
import { usePlayer } from '../player/player.ts';
import { recordingUrl } from '../player/media-url.ts';

/** Mends a transcript while listening: from doubtful word to doubtful word, its sound again and again, type over it, next. */
const props = defineProps<{ recording: Recording }>();
/** What is being typed. */
const draft = defineModel<string>({ required: true });
const emit = defineEmits<{ done: [read: boolean]; cancel: [] }>();

const BACK_SECONDS = 2;
/** Around a word that is heard again and again, so that it is understood. */
const CONTEXT_SECONDS = 0.35;

const player = usePlayer();
const field = useTemplateRef<HTMLTextAreaElement>('field');
const duration = computed(() => props.recording.sound.duration);
const url = computed(() => recordingUrl(props.recording));
const playing = computed(() => player.current.value === props.recording.id && player.playing.value);
/** The draft's words at their times: those that were not touched keep what is known of them. */
const words = computed(() => carried(props.recording.transcript?.words ?? [], draft.value, duration.value));
const places = computed(() => tokens(draft.value));
const doubtful = computed(() => words.value.flatMap((word, index) => (isDoubtful(word) ? [index] : [])));
/** Where the caret is, as the position of a word. */
const at = ref(-1);

onMounted(async () => {
  await nextTick();
  field.value?.focus();
  grow();
  if (doubtful.value.length > 0) goTo(doubtful.value[0]!);
  else field.value?.setSelectionRange(draft.value.length, draft.value.length);
});
onBeforeUnmount(() => playing.value && player.stop());

function follow(): void {
  const caret = field.value?.selectionStart ?? 0;
  at.value = places.value.findLastIndex(({ start }) => start <= caret);
}

function goTo(index: number): void {
  const place = places.value[index];
  const word = words.value[index];
  if (!place || !word) return;
  field.value?.focus();
  field.value?.setSelectionRange(place.start, place.end);
  show(place.start);
  at.value = index;
  void player.loop(props.recording.id, url.value, {
    start: Math.max(0, word.start - CONTEXT_SECONDS),
    end: Math.min(duration.value, word.end + CONTEXT_SECONDS),
  });
}

/** A long text scrolls, and browsers do not follow a selection that was made for somebody. */
function show(position: number): void {
  const element = field.value;
  if (!element || element.scrollHeight <= element.clientHeight + 4) return;
  const { top, height } = caretCoordinates(element, position);
  const inSight = top >= element.scrollTop && top + height <= element.scrollTop + element.clientHeight;
  if (!inSight) element.scrollTop = top - element.clientHeight / 3;
}

function step(by: 1 | -1): void {
  follow();
  const next =
    by > 0 ? doubtful.value.find((index) => index > at.value) : doubtful.value.findLast((index) => index < at.value);
  if (next !== undefined) goTo(next);
  else if (by > 0) player.stop();
}

function playPause(): void {
  follow();
  const from = words.value[at.value]?.start ?? 0;
  if (playing.value) void player.toggle(props.recording.id, url.value);
  else
    void player.playFrom(
      props.recording.id,
      url.value,
      player.current.value === props.recording.id ? player.position.value : from,
    );
}

function back(): void {
  const from = player.current.value === props.recording.id ? player.position.value : 0;
  void player.playFrom(props.recording.id, url.value, Math.max(0, from - BACK_SECONDS));
}

/** A click in the text while it plays goes on from there. */
function hearHere(): void {
  follow();
  const word = words.value[at.value];
  if (playing.value && word) void player.playFrom(props.recording.id, url.value, word.start);
}

function grow(): void {
  const element = field.value;
  if (!element) return;
  element.style.height = 'auto';
  element.style.height = `${element.scrollHeight + 2}px`;
}

const now = computed(() => (playing.value ? words.value[wordAt(words.value, player.position.value)]?.word : undefined));

function onKey(event: KeyboardEvent): void {
  const command = event.ctrlKey || event.metaKey;
  if (event.key === 'Enter' && command) emit('done', true);
  else if (event.key === 'Enter') step(event.shiftKey ? -1 : 1);
  else if (event.key === 'Escape') emit('cancel');
  else if (command && event.key === '.') playPause();
  else if (command && event.key === ',') back();
  else return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <div class="editor" @click.stop>
    <textarea
      ref="field"
      v-model="draft"
      class="field"
      aria-label="Transcript"
      :aria-describedby="`keys-${recording.id}`"
      :maxlength="MOST_SAID"
      rows="2"
      dir="auto"
      :lang="recording.transcript?.language"
      @input="grow"
      @keydown="onKey"
      @keyup="follow"
      @click="hearHere"
      @blur="$emit('done', false)"
    />
    <p :id="`keys-${recording.id}`" class="quiet">
      <template v-if="doubtful.length > 0"
        >{{ doubtful.length }} doubtful {{ doubtful.length === 1 ? 'word' : 'words' }}: Enter goes to the next.
      </template>
      Ctrl + . plays, Ctrl + , goes back 2 s, Ctrl + Enter: I have read it.
    </p>
    <div class="row" @mousedown.prevent>
      <v-btn :icon="mdiRewind" size="28" aria-label="Back 2 seconds" @click="back" />
      <v-btn
        :icon="playing ? mdiPause : mdiPlay"
        size="28"
        :aria-label="playing ? 'Pause' : 'Play from here'"
        @click="playPause"
      />
      <v-btn
        :icon="mdiSkipNext"
        size="28"
        aria-label="Next doubtful word"
        :disabled="doubtful.length === 0"
        @click="step(1)"
      />
      <span class="now quiet">{{ now }}</span>
      <v-btn size="x-small" variant="outlined" :prepend-icon="mdiCheck" @click="$emit('done', true)"
        >I have read it</v-btn
      >
    </div>
  </div>
</template>

<style scoped>
.field {
  display: block;
  width: 100%;
  margin-top: 4px;
  padding: 4px 6px;
  border: 1px solid var(--kind);
  border-radius: 3px;
  background: var(--paper);
  line-height: 1.45;
  max-height: 50vh;
  overflow-y: auto;
  resize: none;
}
.row {
  display: flex;
  align-items: center;
  gap: 2px;
}
.now {
  flex: 1;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.quiet {
  font-size: 12px;
}
.field + .quiet {
  margin-top: 6px;
}
</style>
