<script setup lang="ts">
import { foundAt, foundWords, tokens } from '#core/transcript';
import type { Remark } from '#contract/remarks';
import { mdiPause, mdiPlay } from '@mdi/js';
import { computed } from 'vue';
import { usePlayer } from '../player/player.ts';
import { recordingUrl } from '../player/media-url.ts';
import { dayAndTime } from '../wording/format.ts';
import TranscriptText from '../transcript/TranscriptText.vue';
import FoundText from './FoundText.vue';

/** One remark that has the words, with a way to hear it from there and to open it at its place. */
const props = defineProps<{
  remark: Remark;
  submission: string;
  student: string;
  assignment: string;
  find: string;
  /** Where it opens. */
  route: 'desk' | 'returned';
}>();

const player = usePlayer();
const recording = computed(() => props.remark.recording);
const transcript = computed(() => recording.value?.transcript);
const url = computed(() => (recording.value ? recordingUrl(recording.value) : ''));
const playing = computed(() => player.current.value === recording.value?.id && player.playing.value);
/** Seconds; a transcript without word times does not say where its words are. */
const from = computed(() => foundAt(transcript.value?.words ?? [], props.find));
const quote = computed(() => (props.remark.anchor.type === 'passage' ? props.remark.anchor.quote.exact : undefined));
const has = (text: string): boolean =>
  foundWords(
    tokens(text).map((token) => token.text),
    props.find,
  ).length > 0;
const written = computed(() =>
  [props.remark.name, props.remark.text, props.remark.tags.join(', ')].filter((text) => text !== ''),
);
const translations = computed(() => (recording.value?.translations ?? []).filter(({ text }) => has(text)));

function play(): void {
  const { id } = recording.value ?? {};
  if (id === undefined) return;
  void (playing.value ? player.toggle(id, url.value) : player.playFrom(id, url.value, from.value ?? 0));
}
</script>

<template>
  <article class="hit">
    <v-btn
      v-if="recording"
      :icon="playing ? mdiPause : mdiPlay"
      size="32"
      :aria-label="playing ? 'Pause' : `${from === undefined ? 'Play' : 'Play from the words'}: ${student}`"
      @click="play"
    />
    <span v-else class="silent" />
    <div class="about">
      <p class="head">
        <router-link :to="{ name: route, params: { submission }, hash: `#${remark.id}` }">{{ student }}</router-link>
        <span class="fine">{{ assignment }}</span>
        <span class="fine figures">{{ dayAndTime(remark.madeAt) }}</span>
      </p>
      <p v-if="quote" class="quote">{{ quote }}</p>
      <p v-for="text in written" :key="text"><FoundText :text="text" :find="find" /></p>
      <TranscriptText
        v-if="recording && transcript && transcript.words.length > 0"
        :id="recording.id"
        :url="url"
        :transcript="transcript"
        :find="find"
      />
      <p v-else-if="transcript">
        <FoundText :text="transcript.text" :lang="transcript.language" :find="find" />
      </p>
      <p v-for="{ language, text } in translations" :key="language">
        <FoundText :text="text" :lang="language" :find="find" />
      </p>
    </div>
  </article>
</template>

<style scoped>
.hit {
  --kind: var(--ink);
  display: flex;
  gap: 8px;
  padding: 10px 0;
  border-bottom: 1px solid var(--hairline);
}
.silent {
  flex: 0 0 32px;
}
.about {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
.head {
  display: flex;
  flex-wrap: wrap;
  gap: 0 12px;
}
.head a {
  font-weight: 600;
}
.quote {
  overflow: hidden;
  color: var(--quiet);
  font-family: var(--serif);
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
