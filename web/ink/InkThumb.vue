<script setup lang="ts">
import { boxAround, gather, takeApart, type WordBox } from '#core/ink';
import type { Ink } from '#contract/ink';
import { computed } from 'vue';
import { surfaceGround, wordsGround } from './ground.ts';
import InkMark from './InkMark.vue';

/** What was drawn, small, as its remark has it in the margin. */
const props = defineProps<{ ink: Ink }>();

/** Pixels. */
const SURFACE = 600;
const ROOM = 4;
/** A text as it might be set: letters of one width, words of five, lines of forty. */
const [LETTER, HEIGHT, LEADING, WORD, LINE] = [8, 16, 28, 5, 40];

function invented(length: number): WordBox[] {
  return Array.from({ length: Math.ceil(length / WORD) }, (_, index) => {
    const start = index * WORD;
    const [left, top] = [(start % LINE) * LETTER, Math.floor(start / LINE) * LEADING];
    return { start, end: start + WORD, left, top, right: left + WORD * LETTER, bottom: top + HEIGHT };
  });
}

const ground = computed(() => {
  if (!props.ink[0]!.hold) return surfaceGround(0, SURFACE);
  return wordsGround(0, invented(gather(takeApart(props.ink, 0)).end + WORD));
});
const view = computed(() => {
  const points = props.ink.flatMap((stroke) => ground.value.draw(stroke, 0)).flatMap((stroke) => stroke.points);
  const { left, top, right, bottom } = boxAround(points);
  return [left - ROOM, top - ROOM, right - left + 2 * ROOM, bottom - top + 2 * ROOM].join(' ');
});
</script>

<template>
  <svg class="thumb" :viewBox="view" role="img" aria-label="What was drawn">
    <InkMark :ink="ink" :ground="ground" :start="0" />
  </svg>
</template>

<style scoped>
.thumb {
  display: block;
  width: 100%;
  max-width: 200px;
  height: 48px;
  margin-top: 4px;
}
</style>
