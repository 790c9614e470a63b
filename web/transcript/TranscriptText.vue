<script setup lang="ts">
import { foundWords, isDoubtful, wordAt, type Transcript } from '#core/transcript';
import { computed, useTemplateRef, watch } from 'vue';
import { usePlayer } from '../player/player.ts';

/** The words of a recording: the one that is said lights up, and a click on one plays from it. */
const props = defineProps<{
  id: string;
  url: string;
  transcript: Transcript;
  /** Whether words can be pressed; with hundreds of ribbons only those of one or two can. */
  live?: boolean;
  /** What somebody looks for; the words that have it are marked. */
  find?: string;
}>();

const player = usePlayer();
const heard = computed(() => player.current.value === props.id && (player.playing.value || player.position.value > 0));
const found = computed(
  () =>
    new Set(
      props.find
        ? foundWords(
            props.transcript.words.map(({ word }) => word),
            props.find,
          )
        : [],
    ),
);
const apart = computed(() => (props.live || heard.value || found.value.size > 0) && props.transcript.words.length > 0);
const now = computed(() => (heard.value ? wordAt(props.transcript.words, player.position.value) : -1));
const draft = computed(() => !props.transcript.read);

/** Characters of about two minutes: more would push all other ribbons away, so it is read in a box of its own. */
const LONG = 2000;
const box = useTemplateRef<HTMLElement>('box');
const long = computed(() => props.transcript.text.length > LONG);
watch(now, (index) => {
  const word = box.value?.children[index];
  if (!long.value || !(word instanceof HTMLElement) || !box.value) return;
  const { scrollTop, clientHeight } = box.value;
  const inSight = word.offsetTop >= scrollTop && word.offsetTop + word.offsetHeight <= scrollTop + clientHeight;
  if (!inSight) box.value.scrollTop = word.offsetTop - clientHeight / 4;
});
</script>

<template>
  <p
    ref="box"
    class="words"
    :class="{ draft, long }"
    :lang="transcript.language"
    dir="auto"
    :tabindex="long ? 0 : undefined"
  >
    <template v-if="apart">
      <template v-for="(word, index) in transcript.words" :key="index"
        ><span
          class="word"
          :class="{ now: index === now, found: found.has(index), doubtful: draft && isDoubtful(word) }"
          @click.stop="player.playFrom(id, url, word.start)"
          >{{ word.word }}</span
        >{{ ' ' }}</template
      >
    </template>
    <template v-else>{{ transcript.text }}</template>
  </p>
</template>

<style scoped>
.words {
  margin-top: 4px;
  line-height: 1.45;
  overflow-wrap: anywhere;
}
.long {
  position: relative;
  max-height: 40vh;
  overflow-y: auto;
}
.draft {
  font-style: italic;
}
.word {
  border-radius: 3px;
  cursor: pointer;
}
.word:hover {
  background: color-mix(in srgb, var(--kind) 14%, transparent);
}
.now {
  background: color-mix(in srgb, var(--kind) 26%, transparent);
}
.doubtful {
  text-decoration: underline wavy var(--quiet);
  text-underline-offset: 3px;
}
</style>
