<script setup lang="ts">
import { foundWords, tokens } from '#core/transcript';
import { computed } from 'vue';

/** A text in which the words that somebody looks for are marked. */
const props = defineProps<{ text: string; find: string; lang?: string }>();

const parts = computed(() => {
  const words = tokens(props.text).map(({ text }) => text);
  const found = new Set(foundWords(words, props.find));
  return words.map((word, index) => ({ word, found: found.has(index) }));
});
</script>

<template>
  <span :lang="lang" dir="auto"
    ><template v-for="({ word, found }, index) in parts" :key="index"
      ><b v-if="found" class="found">{{ word }}</b
      ><template v-else>{{ word }}</template
      >{{ ' ' }}</template
    ></span
  >
</template>
