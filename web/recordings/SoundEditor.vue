<script setup lang="ts">
import { clock, keptSeconds, withinSpan, withoutSpan, type SoundEdit, type Span } from '#core/audio';
import type { Recording } from '#contract/recordings';
import { mdiContentCut, mdiPause, mdiPlay, mdiRedo, mdiUndo } from '@mdi/js';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, useTemplateRef } from 'vue';
import type WaveSurfer from 'wavesurfer.js';
import type { Region } from 'wavesurfer.js/plugins/regions';
import { canRender, decode, renderSound } from '../recorder/sound-work.ts';
import { useRecordingActions } from './recording-actions.ts';
import { useOriginalSound } from './use-original-sound.ts';
import NumberField from '../theme/NumberField.vue';
import { percent } from '../wording/format.ts';

/** Trims and cuts a recording. What was spoken stays as it was, and so does everything that was cut. */
const props = defineProps<{ recording: Recording }>();
const emit = defineEmits<{ close: [] }>();

const STEP = 0.05;

const actions = useRecordingActions();
const original = useOriginalSound();
const wave = useTemplateRef('wave');
const state = ref<'loading' | 'ready' | 'working' | 'failed'>('loading');
const problem = ref<string>();
const total = ref(0);
const progress = ref(0);
const playing = ref(false);
/** The stretch that is chosen, to be cut out or to be all that is left. */
const chosen = shallowRef<Span>();
const past = shallowRef<SoundEdit[]>([]);
const future = shallowRef<SoundEdit[]>([]);
const edit = shallowRef<SoundEdit>({ kept: [], levelled: true });
let bytes: ArrayBuffer | undefined;
let surfer: WaveSurfer | undefined;
let region: Region | undefined;

const seconds = computed(() => keptSeconds(edit.value.kept));
const cuts = computed(() => withoutKept(edit.value.kept, total.value));
const changed = computed(() => past.value.length > 0);

function withoutKept(kept: readonly Span[], end: number): Span[] {
  return kept.reduce<Span[]>((left, span) => withoutSpan(left, span), [{ start: 0, end }]);
}

onMounted(async () => {
  try {
    bytes = await original(props.recording);
    await draw(bytes);
    edit.value = props.recording.edit ?? { kept: [{ start: 0, end: total.value }], levelled: false };
    state.value = 'ready';
  } catch {
    state.value = 'failed';
    problem.value = 'The recording could not be opened. Check the network and try again.';
  }
});
onBeforeUnmount(() => surfer?.destroy());

async function draw(sound: ArrayBuffer): Promise<void> {
  const [{ default: WaveSurfer }, { default: Regions }] = await Promise.all([
    import('wavesurfer.js'),
    import('wavesurfer.js/plugins/regions'),
  ]);
  const color = (name: string): string => getComputedStyle(wave.value!).getPropertyValue(name);
  const regions = Regions.create();
  surfer = WaveSurfer.create({
    container: wave.value!,
    height: 64,
    waveColor: color('--wave'),
    progressColor: color('--wave-played'),
    cursorColor: color('--wave-played'),
    barWidth: 2,
    barGap: 1,
    normalize: true,
    plugins: [regions],
  });
  await surfer.loadBlob(new Blob([sound.slice(0)]));
  total.value = surfer.getDuration();
  surfer.on('play', () => (playing.value = true));
  surfer.on('pause', () => (playing.value = false));
  surfer.on('timeupdate', skipCuts);
  regions.enableDragSelection({ color: 'rgb(98 92 82 / 22%)' });
  regions.on('region-created', (created) => {
    region?.remove();
    region = created;
    choose(created);
  });
  regions.on('region-updated', choose);
}

const choose = ({ start, end }: Span): void => void (chosen.value = { start, end });

function clearChosen(): void {
  region?.remove();
  region = undefined;
  chosen.value = undefined;
}

/** Plays what will be heard: what is cut is jumped over. */
function skipCuts(now: number): void {
  const cut = cuts.value.find(({ start, end }) => now >= start - 0.02 && now < end - 0.05);
  if (!playing.value || !cut) return;
  if (cut.end >= total.value - 0.05) surfer?.pause();
  else surfer?.setTime(cut.end);
}

function change(next: SoundEdit): void {
  past.value = [...past.value, edit.value];
  future.value = [];
  edit.value = next;
}

function cutOut(): void {
  if (!chosen.value) return;
  const kept = withoutSpan(edit.value.kept, chosen.value);
  if (kept.length === 0) problem.value = 'Leave at least something to hear.';
  else change({ ...edit.value, kept });
  clearChosen();
}

function keepOnly(): void {
  if (!chosen.value) return;
  const kept = withinSpan(edit.value.kept, chosen.value);
  if (kept.length > 0) change({ ...edit.value, kept });
  clearChosen();
}

/** The ends while they are dragged; then it is trimmed once. */
const dragged = shallowRef<[number, number]>();
const ends = computed((): [number, number] => dragged.value ?? outerEnds(edit.value.kept));
const outerEnds = (kept: readonly Span[]): [number, number] => [kept[0]?.start ?? 0, kept.at(-1)?.end ?? total.value];

function trimTo([start, end]: [number, number]): void {
  const [before, after] = outerEnds(edit.value.kept);
  dragged.value = undefined;
  if (Math.abs(start - before) >= STEP / 2) trim('start', start);
  if (Math.abs(end - after) >= STEP / 2) trim('end', end);
}

const everything = (): void => change({ ...edit.value, kept: [{ start: 0, end: total.value }] });

function trim(which: 'start' | 'end', value: number): void {
  const { kept } = edit.value;
  if (!Number.isFinite(value)) return;
  const within = which === 'start' ? { start: value, end: total.value } : { start: 0, end: value };
  // Trimming outwards brings back what was cut at that end.
  const grown = kept.map((span, index) => {
    if (which === 'start' && index === 0) return { ...span, start: Math.min(span.start, Math.max(0, value)) };
    if (which === 'end' && index === kept.length - 1)
      return { ...span, end: Math.max(span.end, Math.min(total.value, value)) };
    return span;
  });
  const next = withinSpan(grown, within);
  if (next.length > 0) change({ ...edit.value, kept: next });
}

function undo(): void {
  const before = past.value.at(-1);
  if (!before) return;
  future.value = [...future.value, edit.value];
  past.value = past.value.slice(0, -1);
  edit.value = before;
}

function redo(): void {
  const next = future.value.at(-1);
  if (!next) return;
  past.value = [...past.value, edit.value];
  future.value = future.value.slice(0, -1);
  edit.value = next;
}

async function keep(): Promise<void> {
  if (!changed.value) return emit('close');
  state.value = 'working';
  try {
    const { samples, rate } = await decode(bytes!.slice(0));
    const {
      blob,
      sha256,
      duration,
      peaks,
      edit: made,
    } = await renderSound(samples, rate, edit.value, {
      onProgress: (share) => (progress.value = share),
    });
    const sound = { blob, sha256, duration, peaks, microphone: { type: 'device' as const }, picture: null };
    await actions.setSound(props.recording, sound, made);
    emit('close');
  } catch {
    state.value = 'ready';
    problem.value = 'The sound could not be edited. Your recording has not changed.';
  }
}
</script>

<template>
  <section
    class="editor"
    aria-label="Edit the sound"
    @click.stop
    @keydown.esc.stop="$emit('close')"
    @keydown.ctrl.z.exact.prevent.stop="undo"
    @keydown.ctrl.shift.z.prevent.stop="redo"
  >
    <p v-if="!canRender()" class="fine">This browser cannot edit sound. Use another browser to trim and cut.</p>
    <template v-else>
      <div class="wave">
        <div ref="wave" aria-hidden="true" />
        <span
          v-for="cut in cuts"
          :key="cut.start"
          class="cut"
          :style="{ left: `${(cut.start / total) * 100}%`, width: `${((cut.end - cut.start) / total) * 100}%` }"
        />
      </div>
      <v-range-slider
        v-if="total > 0"
        class="ends"
        :model-value="ends"
        :min="0"
        :max="total"
        :step="STEP"
        :thumb-size="14"
        density="compact"
        hide-details
        color="var(--kind)"
        aria-label="Beginning and end of what is heard"
        @update:model-value="dragged = $event"
        @end="trimTo"
      />
      <p class="fine figures" role="status">
        <template v-if="state === 'loading'">Opening the recording …</template>
        <template v-else-if="state === 'working'">Rendering … {{ percent(progress) }}</template>
        <template v-else
          >{{ clock(seconds) }} of {{ clock(total) }} will be heard. Drag the ends to trim, or drag over a stretch to
          choose it.</template
        >
      </p>
      <div class="row">
        <v-btn
          :icon="playing ? mdiPause : mdiPlay"
          size="30"
          :aria-label="playing ? 'Pause' : 'Play as edited'"
          :disabled="state !== 'ready'"
          @click="surfer?.playPause()"
        />
        <v-btn size="x-small" variant="outlined" :prepend-icon="mdiContentCut" :disabled="!chosen" @click="cutOut">
          Cut out
        </v-btn>
        <v-btn size="x-small" variant="outlined" :disabled="!chosen" @click="keepOnly">Only this</v-btn>
        <v-btn size="x-small" variant="outlined" :disabled="cuts.length === 0" @click="everything">All of it</v-btn>
        <v-btn :icon="mdiUndo" size="28" aria-label="Undo" :disabled="past.length === 0" @click="undo" />
        <v-btn :icon="mdiRedo" size="28" aria-label="Redo" :disabled="future.length === 0" @click="redo" />
      </div>
      <div class="row fields">
        <NumberField
          label="From"
          :min="0"
          :max="total"
          :step="STEP"
          :precision="2"
          :model-value="edit.kept[0]?.start ?? 0"
          @update:model-value="trim('start', $event)"
        />
        <NumberField
          label="to"
          suffix="s"
          :min="0"
          :max="total"
          :step="STEP"
          :precision="2"
          :model-value="edit.kept.at(-1)?.end ?? 0"
          @update:model-value="trim('end', $event)"
        />
        <v-checkbox
          label="Same loudness as my other remarks"
          :model-value="edit.levelled"
          @update:model-value="change({ ...edit, levelled: $event === true })"
        />
      </div>
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <div class="row end">
        <v-btn size="small" @click="$emit('close')">Leave it as it was</v-btn>
        <v-btn size="small" variant="flat" color="primary" :loading="state === 'working'" @click="keep">Keep</v-btn>
      </div>
    </template>
  </section>
</template>

<style scoped>
.editor {
  margin-top: 8px;
  padding-top: 8px;
  border-top: 1px solid var(--hairline);
}
.wave {
  --wave: color-mix(in srgb, var(--kind) 60%, var(--paper));
  --wave-played: var(--kind);
  position: relative;
  min-height: 64px;
}
.ends {
  margin-inline: -8px;
}
.cut {
  position: absolute;
  top: 0;
  bottom: 0;
  z-index: 5;
  background: repeating-linear-gradient(
    135deg,
    color-mix(in srgb, var(--paper) 85%, transparent) 0 5px,
    color-mix(in srgb, var(--hairline) 85%, transparent) 5px 7px
  );
  pointer-events: none;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px;
  margin-top: 6px;
}
.end {
  justify-content: flex-end;
}
.fields {
  gap: 8px;
  margin-top: 12px;
  font-size: 13px;
}
.fields .figures {
  max-width: 110px;
}
.refused {
  font-size: 13px;
}
</style>
