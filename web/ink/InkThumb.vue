<script setup lang="ts">
import { boxAround, SURFACE_UNITS, unpackPoints, type DrawnStroke, type Stroke } from '#core/ink';
import type { Ink } from '#contract/ink';
import { computed } from 'vue';
import InkMark from './InkMark.vue';

/** What was drawn, small, as its remark has it in the margin. */
const props = defineProps<{ ink: Ink }>();

/** Pixels for a hundredth of a line, and for a letter, where strokes hang on words. */
const HUNDREDTH = 0.2;
const LETTER = 8 / 16;
const ROOM = 4;

/** As if all words stood on one long line. */
function drawn({ points, hold, width, ...look }: Stroke): DrawnStroke[] {
  const [across, down] =
    hold === undefined
      ? [600 / SURFACE_UNITS, 600 / SURFACE_UNITS]
      : hold.type === 'along'
        ? [LETTER, HUNDREDTH]
        : hold.type === 'around'
          ? [((hold.end - hold.start) * 8) / 1000, 24 / 1000]
          : [HUNDREDTH, HUNDREDTH];
  const left = hold && hold.type !== 'along' ? hold.start * 8 : 0;
  const scaled = unpackPoints(points).map((point) => ({ ...point, x: left + point.x * across, y: point.y * down }));
  return [{ ...look, width: width * (hold ? HUNDREDTH : across), points: scaled }];
}
const ground = { keep: () => undefined, draw: drawn };

const view = computed(() => {
  const { left, top, right, bottom } = boxAround(props.ink.flatMap(drawn).flatMap(({ points }) => points));
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
