<script setup lang="ts">
import type { SpanAnchor } from '#core/anchor';
import { clock } from '#core/audio';
import type { LeafOf } from '#core/folio';
import { urlOf } from '#contract/endpoint';
import { workFile } from '#contract/submissions';
import { mdiPause, mdiPlay } from '@mdi/js';
import { useEventListener } from '@vueuse/core';
import { computed, inject, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef } from 'vue';
import type WaveSurfer from 'wavesurfer.js';
import { useMarginKey } from '../feedback/margin-key.ts';
import { usePlayer } from '../player/player.ts';
import { focusWork, useFolio } from './folio-context.ts';
import { PERFORMANCE } from './performance.ts';
import { useInTime } from './use-in-time.ts';

/** A recording of the student, as its waveform and with its picture. A drag on it chooses a stretch. */
const props = defineProps<{ leaf: LeafOf<'sound'>; index: number }>();

const SMALLEST_SECONDS = 0.2;

const folio = useFolio();
const margin = useMarginKey();
const player = usePlayer();
const media = useTemplateRef<HTMLMediaElement>('media');
const wave = useTemplateRef('wave');
const layer = useTemplateRef('layer');
const seconds = ref(props.leaf.duration ?? 0);
const position = ref(0);
const playing = ref(false);
const state = ref<'loading' | 'ready' | 'failed'>('loading');
const from = shallowRef<number>();
let surfer: WaveSurfer | undefined;
const performance = inject(PERFORMANCE, undefined);
const along = performance?.along(props.index);
useInTime(
  () => media.value,
  () => along?.value,
);

const marks = computed(() =>
  folio.marks.flatMap((mark) =>
    mark.anchor.type === 'span' && mark.anchor.leaf === props.index ? [{ ...mark, anchor: mark.anchor }] : [],
  ),
);
const target = computed(() =>
  folio.target?.type === 'span' && folio.target.leaf === props.index ? folio.target : undefined,
);
const place = ({ start, end }: SpanAnchor): Record<string, string> => ({
  left: `${(start / (seconds.value || 1)) * 100}%`,
  width: `${((end - start) / (seconds.value || 1)) * 100}%`,
});

onMounted(async () => {
  const { default: WaveSurfer } = await import('wavesurfer.js');
  if (!wave.value || !media.value) return;
  const color = (name: string): string => getComputedStyle(wave.value!).getPropertyValue(name);
  surfer = WaveSurfer.create({
    container: wave.value,
    media: media.value,
    url: urlOf(workFile, { submission: folio.submission, position: String(props.leaf.file) }),
    height: 88,
    waveColor: color('--wave'),
    progressColor: color('--wave-played'),
    cursorColor: color('--wave-played'),
    barWidth: 2,
    barGap: 1,
    barRadius: 1,
    normalize: true,
    interact: false,
  });
  surfer.on('ready', (duration) => {
    seconds.value = duration;
    state.value = 'ready';
  });
  surfer.on('error', () => (state.value = 'failed'));
});
onBeforeUnmount(() => surfer?.destroy());

useEventListener(media, 'timeupdate', () => (position.value = media.value?.currentTime ?? 0));
useEventListener(media, ['play', 'pause', 'ended'], () => (playing.value = media.value?.paused === false));

useEventListener(media, ['playing', 'seeked'], () => {
  const element = media.value;
  if (element && !element.paused) performance?.begun?.(props.index, () => element.currentTime);
});
useEventListener(media, ['pause', 'ended', 'seeking'], () => performance?.halted?.());

async function toggle(): Promise<void> {
  if (!media.value) return;
  if (along?.value) return performance?.leave();
  if (!media.value.paused) return media.value.pause();
  player.stop();
  await media.value.play().catch(() => (state.value = 'failed'));
}

/** The recording plays, and the teacher is recorded beside it. */
async function speakOver(): Promise<void> {
  if (await performance?.speakOver?.()) await media.value?.play().catch(() => (state.value = 'failed'));
}

function seek(to: number): void {
  if (media.value) media.value.currentTime = Math.min(seconds.value, Math.max(0, to));
}

function secondsAt(event: PointerEvent): number {
  const frame = layer.value!.getBoundingClientRect();
  return Math.min(1, Math.max(0, (event.clientX - frame.left) / frame.width)) * seconds.value;
}

function begin(event: PointerEvent): void {
  if (event.button !== 0 || (event.target as Element).closest('button') || seconds.value === 0) return;
  event.preventDefault();
  focusWork(event.currentTarget);
  from.value = secondsAt(event);
  seek(from.value);
  if (folio.choosing) folio.choose(undefined);
}

useEventListener(window, 'pointermove', (event: PointerEvent) => {
  if (from.value === undefined || !folio.choosing) return;
  span(Math.min(from.value, secondsAt(event)), Math.max(from.value, secondsAt(event)));
});
useEventListener(window, ['pointerup', 'pointercancel'], () => (from.value = undefined));

function span(start: number, end: number): void {
  if (end - start < SMALLEST_SECONDS) return;
  const hundredth = (value: number): number => Math.round(value * 100) / 100;
  folio.choose({
    type: 'span',
    leaf: props.index,
    start: hundredth(start),
    end: hundredth(Math.min(end, seconds.value)),
  });
}

/** For whoever chooses a stretch without a mouse: it begins, or ends, where the recording stands. */
function edge(event: Event, which: 'start' | 'end'): void {
  focusWork(event.currentTarget);
  const now = position.value;
  const { start, end } = target.value ?? { start: now, end: Math.min(seconds.value, now + 5) };
  if (which === 'start') span(now, end > now + SMALLEST_SECONDS ? end : Math.min(seconds.value, now + 5));
  else span(start < now - SMALLEST_SECONDS ? start : Math.max(0, now - 5), now);
}

function pick(mark: { id: string; anchor: SpanAnchor }): void {
  seek(mark.anchor.start);
  folio.pick(mark.id);
}
</script>

<template>
  <div class="paper">
    <video v-if="leaf.video" ref="media" playsinline preload="metadata" />
    <audio v-else ref="media" preload="metadata" />
    <div class="wave" @pointerdown="begin">
      <div ref="wave" aria-hidden="true" />
      <div ref="layer" class="layer">
        <button
          v-for="mark in marks"
          :key="mark.id"
          type="button"
          class="span"
          :class="[`kind-${mark.kind}`, { focused: mark.id === folio.focused }]"
          :style="place(mark.anchor)"
          :data-remarks="mark.id"
          :aria-label="`${margin.entry(mark.kind).name}: go to the remark about ${clock(mark.anchor.start)} to ${clock(mark.anchor.end)}`"
          @click="pick(mark)"
        >
          <span class="glyph" aria-hidden="true" :data-glyph="margin.entry(mark.kind).glyph" />
        </button>
        <div v-if="target" class="span chosen" :style="place(target)" />
      </div>
      <p
        v-if="state !== 'ready'"
        class="state"
        role="status"
        :data-words="
          state === 'loading'
            ? 'Drawing the recording …'
            : 'This recording cannot be played here. Reload the page to try again.'
        "
      />
    </div>
    <div class="row">
      <v-btn
        :icon="playing ? mdiPause : mdiPlay"
        size="36"
        variant="flat"
        color="primary"
        :aria-label="`${playing ? 'Pause' : 'Play'} the student’s ${leaf.label.toLowerCase()}`"
        @click="toggle"
      />
      <span class="figures clock" :data-words="`${clock(position)} of ${clock(seconds)}`" />
      <input
        type="range"
        min="0"
        :max="seconds"
        step="0.1"
        :value="position"
        aria-label="Position in the recording"
        @input="seek(Number(($event.target as HTMLInputElement).value))"
      />
      <v-btn
        v-if="folio.choosing && performance?.speakOver"
        size="small"
        variant="outlined"
        title="It plays while you speak; with headphones your student hears your voice alone. L ends it."
        @click="speakOver"
        >Speak over it</v-btn
      >
      <template v-if="folio.choosing">
        <v-btn size="small" variant="outlined" @click="edge($event, 'start')">Stretch begins here</v-btn>
        <v-btn size="small" variant="outlined" @click="edge($event, 'end')">ends here</v-btn>
      </template>
    </div>
  </div>
</template>

<style scoped>
.paper {
  padding: 20px 24px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  font: 14px var(--sans);
  user-select: none;
}
video {
  display: block;
  width: min(100%, 640px);
  margin: 0 auto 14px;
  background: #000;
}
.wave {
  --wave: #a49c8e;
  --wave-played: #5c554a;
  position: relative;
  min-height: 88px;
  cursor: text;
}
.layer {
  position: absolute;
  inset: 0;
  z-index: 10;
}
.span {
  position: absolute;
  top: 0;
  bottom: 0;
  min-width: 4px;
  border: 3px var(--kind-border) var(--kind);
  border-block-width: 0;
  background: color-mix(in srgb, var(--kind) 12%, transparent);
}
.span.focused {
  background: color-mix(in srgb, var(--kind) 28%, transparent);
}
.span.chosen {
  border: 2px dashed var(--ink);
  background: color-mix(in srgb, var(--ink) 10%, transparent);
  pointer-events: none;
}
.glyph::before {
  content: attr(data-glyph);
  position: absolute;
  top: 0;
  left: 0;
  padding: 0 4px;
  background: var(--kind);
  color: var(--paper);
  font-weight: 600;
  font-size: 12px;
  line-height: 18px;
}
.state::before {
  content: attr(data-words);
  position: absolute;
  inset: 32px 0 auto;
  color: var(--quiet);
  text-align: center;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 12px;
  margin-top: 12px;
}
.clock::before {
  content: attr(data-words);
}
input {
  flex: 1;
  min-width: 120px;
  accent-color: var(--ink);
}
</style>
