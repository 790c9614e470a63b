<script setup lang="ts">
import { useEventListener } from '@vueuse/core';
import { computed, useTemplateRef, type CSSProperties } from 'vue';
import { useFolio } from './folio-context.ts';
import { letterWidth } from './letter-width.ts';

/** Words that were read in a picture lie over it, not seen, to be selected; what is selected is a box around them. */
const props = defineProps<{ index: number; ratio: number }>();

const folio = useFolio();
const layer = useTemplateRef('layer');
const page = computed(() => folio.wordless.get(props.index));

const lines = computed(() =>
  (page.value?.words?.lines ?? []).map((line) =>
    line.map((word) => {
      const natural = letterWidth(word.text) * word.height;
      const stretch = natural > 0 ? (word.width * props.ratio) / natural : 1;
      const style: CSSProperties = {
        ...{ left: `${word.x * 100}%`, top: `${word.y * 100}%`, fontSize: `${word.height * 100}cqh` },
        transform: `scaleX(${stretch})`,
      };
      return { word, style };
    }),
  ),
);

const SENTENCES: Record<string, string> = {
  off: 'This page is a picture without text. To comment on a part of it, draw a box.',
  waiting: 'This page is a picture without text. Its words are being recognised …',
  failed: 'The words of this picture could not be recognised. To comment on a part of it, draw a box.',
};
const sentence = computed(() => {
  const { state = 'off', words } = page.value ?? {};
  if (!words) return SENTENCES[state];
  return words.lines.length > 0
    ? 'Recognised words: they can be selected, and may contain mistakes.'
    : 'No words were recognised in this picture. To comment on a part of it, draw a box.';
});

/** The box around the selected words, in the place of the words themselves: they are no text of the work. */
function chooseSelected(): void {
  const selection = document.getSelection();
  if (!folio.choosing || !selection || selection.isCollapsed || !layer.value?.contains(selection.anchorNode)) return;
  const chosen = [...layer.value.querySelectorAll<HTMLElement>('[data-word]')].filter((element) =>
    selection.containsNode(element, true),
  );
  const words = chosen.map(({ dataset }) => {
    const [line, word] = dataset.word!.split(' ').map(Number) as [number, number];
    return lines.value[line]![word]!.word;
  });
  if (words.length === 0) return;
  const [left, top] = [Math.min(...words.map(({ x }) => x)), Math.min(...words.map(({ y }) => y))];
  const right = Math.max(...words.map(({ x, width }) => x + width));
  const bottom = Math.max(...words.map(({ y, height }) => y + height));
  folio.choose({ type: 'region', leaf: props.index, x: left, y: top, width: right - left, height: bottom - top });
}
let changed = false;
useEventListener(document, 'selectionchange', () => (changed = true));
useEventListener(document, ['pointerup', 'keyup'], () => {
  if (changed) chooseSelected();
  changed = false;
});
</script>

<template>
  <div v-if="page" ref="layer" class="recognised">
    <p v-for="(line, at) in lines" :key="at" class="line">
      <template v-for="({ word, style }, number) in line" :key="number"
        ><span class="text" :data-word="`${at} ${number}`" :style="style">{{ word.text }}</span
        >{{ ' ' }}</template
      >
    </p>
    <p v-if="sentence" class="note" role="note" :data-words="sentence" :aria-label="sentence" />
  </div>
</template>

<style scoped>
.recognised {
  position: absolute;
  inset: 0;
  container-type: size;
  pointer-events: none;
  color: transparent;
  font-family: sans-serif;
  line-height: 1;
}
.line {
  margin: 0;
}
.text {
  position: absolute;
  transform-origin: 0 0;
  white-space: pre;
  cursor: text;
  pointer-events: auto;
}
.note::before {
  content: attr(data-words);
  position: absolute;
  inset: auto auto 0 0;
  padding: 3px 10px;
  background: var(--ground);
  color: #22201c;
  font: 13px/1.5 var(--sans);
}
</style>
