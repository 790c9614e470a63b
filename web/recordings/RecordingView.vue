<script setup lang="ts">
import type { Recording } from '#contract/recordings';
import { useLocalStorage } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { recordingUrl } from '../player/media-url.ts';
import SoundStrip from '../player/SoundStrip.vue';
import ReadingText from '../transcript/ReadingText.vue';
import { useCaptions } from '../transcript/use-captions.ts';

/** A recording, wherever it is shown: played, captioned and read; by whoever may, mended, translated and cut. */
const props = defineProps<{
  recording: Recording;
  /** What it is called by the button that plays it. */
  label: string;
  /** Whether its words can be pressed; with hundreds of recordings only those of one or two can. */
  live?: boolean;
  /** Whether its words can be mended. */
  mendable?: boolean;
}>();
/** Whether its sound is being edited. */
const cutting = defineModel<boolean>('cutting', { default: false });
/** Whether its transcript is being mended. */
const mending = defineModel<boolean>('mending', { default: false });

// Who only listens does not load what mends and cuts.
const TranscriptField = defineAsyncComponent(() => import('./TranscriptField.vue'));
const WordsPanel = defineAsyncComponent(() => import('./WordsPanel.vue'));
const WordCutter = defineAsyncComponent(() => import('./WordCutter.vue'));
const SoundEditor = defineAsyncComponent(() => import('./SoundEditor.vue'));

/** Languages and captions are shown. */
const talking = ref(false);
const byWords = useLocalStorage('cut-by-words', false);
const way = computed({
  get: () => (byWords.value ? 'words' : 'sound'),
  set: (next) => (byWords.value = next === 'words'),
});
const url = computed(() => recordingUrl(props.recording));
// Beside a picture the words in the ribbon would be read past.
const { captions } = useCaptions(() => (props.recording.sound.picture ? props.recording : undefined));
</script>

<template>
  <SoundStrip :id="recording.id" :url="url" :sound="recording.sound" :label="label" :captions="captions" />
  <template v-if="mendable">
    <TranscriptField v-model:mending="mending" v-model:talking="talking" :recording="recording" :focused="live" />
    <WordsPanel v-if="talking && live" :recording="recording" />
    <template v-if="cutting">
      <v-btn-toggle v-model="way" class="ways" mandatory aria-label="How to cut" @click.stop>
        <v-btn value="sound" size="x-small">Cut in the waveform</v-btn>
        <v-btn value="words" size="x-small">Cut by words</v-btn>
      </v-btn-toggle>
      <WordCutter v-if="byWords" :recording="recording" @close="cutting = false" />
      <SoundEditor v-else :recording="recording" @close="cutting = false" />
    </template>
  </template>
  <ReadingText v-else-if="recording.transcript?.text" :recording="recording" :live="live" />
  <p v-else class="fine">There is no transcript yet.</p>
</template>

<style scoped>
.ways {
  margin-top: 8px;
}
</style>
