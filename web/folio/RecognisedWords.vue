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
      <span
        v-for="({ word, style }, number) in line"
        :key="number"
        class="text"
        :data-word="`${at} ${number}`"
        :style="style"
        v-text="`${word.text} `"
      />
    </p>
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
</style>
