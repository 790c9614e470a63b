<script setup lang="ts">
import { computed } from 'vue';
import { useFolio } from './folio-context.ts';

/** Says that a page or picture has no text of its own, and how far its words are recognised. */
const props = defineProps<{ index: number }>();

const folio = useFolio();
const page = computed(() => folio.wordless.get(props.index));

const sentence = computed(() => {
  const { state = 'off', words } = page.value ?? {};
  const hint = folio.choosing ? ' Draw a box to comment on a part of it.' : '';
  if (words && words.lines.length > 0) return 'Recognised words: they can be selected, and may contain mistakes.';
  if (words) return `No words were recognised in this picture.${hint}`;
  if (state === 'asked') return undefined;
  if (state === 'waiting') return 'There is no text in this picture. Recognising its words …';
  if (state === 'failed') return `The words in this picture could not be recognised.${hint}`;
  return `There is no text in this picture.${hint}`;
});
</script>

<template>
  <p v-if="sentence" class="note" role="note" :data-words="sentence" :aria-label="sentence" />
</template>

<style scoped>
/* Words that are no part of the work are never selected with it. */
.note {
  margin: 0 0 6px;
  font: 13px/1.5 var(--sans);
}
.note::before {
  content: attr(data-words);
}
</style>
