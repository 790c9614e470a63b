<script setup lang="ts">
import { blockStarts, canonicalText, type LeafOf, type Shape } from '#core/folio';
import { urlOf } from '#contract/endpoint';
import { workPicture } from '#contract/submissions';
import { computed, useTemplateRef, type CSSProperties } from 'vue';
import BoxLayer from './BoxLayer.vue';
import FolioBlock from './FolioBlock.vue';
import { useFolio } from './folio-context.ts';
import { useFit } from './use-fit.ts';

/** A slide with its shapes at their places, and what its speaker wrote for themselves below it. */
const props = defineProps<{ leaf: LeafOf<'slide'>; index: number }>();

const CLIPS: Partial<Record<Shape['geometry'], string>> = {
  triangle: 'polygon(50% 0, 100% 100%, 0 100%)',
  diamond: 'polygon(50% 0, 100% 50%, 50% 100%, 0 50%)',
  arrow: 'polygon(0 25%, 65% 25%, 65% 0, 100% 50%, 65% 100%, 65% 75%, 0 75%)',
};
const ROUND: Partial<Record<Shape['geometry'], string>> = { ellipse: '50%', rounded: '1.2cqw' };
const JUSTIFY = { top: 'flex-start', middle: 'center', bottom: 'flex-end' } as const;

const folio = useFolio();
const boxes = useTemplateRef('boxes');
useFit(useTemplateRef<HTMLElement>('slide'));

const shapes = computed(() => {
  let at = props.leaf.start;
  return props.leaf.shapes.map((shape) => {
    const starts = blockStarts(shape.blocks, at);
    at += canonicalText(shape.blocks).length;
    return { shape, starts, style: styleOf(shape) };
  });
});
const noteStarts = computed(() => {
  const words = props.leaf.shapes.reduce((sum, { blocks }) => sum + canonicalText(blocks).length, 0);
  return blockStarts(props.leaf.notes, props.leaf.start + words);
});

const across = (points: number): string => `${(points / props.leaf.width) * 100}%`;
const down = (points: number): string => `${(points / props.leaf.height) * 100}%`;
const size = (points: number): string => `${(points / props.leaf.width) * 100}cqw`;

function styleOf({ x, y, width, height, rotation, geometry, fill, line, align, inset, fit }: Shape): CSSProperties {
  const isLine = geometry === 'line';
  return {
    left: across(x),
    top: down(y),
    width: across(width),
    height: down(height),
    ...(rotation && { transform: `rotate(${rotation}deg)` }),
    ...(fill && !isLine && { backgroundColor: fill }),
    ...(line && !isLine && { border: `${size(line.width)} solid ${line.color}` }),
    ...(ROUND[geometry] && { borderRadius: ROUND[geometry] }),
    ...(CLIPS[geometry] && { clipPath: CLIPS[geometry] }),
    ...(fit && { '--point': `calc(${size(1)} * var(--fit, 1))` }),
    justifyContent: JUSTIFY[align ?? 'top'],
    ...(inset && !isLine && { padding: inset.map((points) => size(Math.max(0, points))).join(' ') }),
  };
}

/** A cropped picture is drawn larger than its frame and pushed to its place. */
function pictureStyle({ crop, flipped }: Shape): CSSProperties {
  const mirror = `scale(${flipped?.horizontal ? -1 : 1}, ${flipped?.vertical ? -1 : 1})`;
  if (!crop) return { inset: 0, width: '100%', height: '100%', transform: mirror };
  const [top, right, bottom, left] = crop;
  const [width, height] = [1 / (1 - left - right), 1 / (1 - top - bottom)];
  return {
    width: `${width * 100}%`,
    height: `${height * 100}%`,
    left: `${-left * width * 100}%`,
    top: `${-top * height * 100}%`,
    transform: mirror,
  };
}
</script>

<template>
  <div class="frame">
    <p class="name" :data-name="leaf.label" />
    <div
      ref="slide"
      class="slide"
      :style="{
        aspectRatio: `${leaf.width} / ${leaf.height}`,
        backgroundColor: leaf.background ?? '#fff',
        '--point': `${100 / leaf.width}cqw`,
      }"
      @pointerdown="boxes?.begin($event)"
    >
      <div
        v-for="({ shape, starts, style }, at) in shapes"
        :key="at"
        class="shape"
        :style="style"
        :data-fit="shape.fit || undefined"
      >
        <svg v-if="shape.geometry === 'line' && shape.line" class="line" aria-hidden="true">
          <line
            x1="0"
            :y1="shape.flipped?.vertical ? '100%' : '0'"
            x2="100%"
            :y2="shape.flipped?.vertical ? '0' : '100%'"
            :stroke="shape.line.color"
            :style="{ strokeWidth: size(shape.line.width) }"
          />
        </svg>
        <div v-if="shape.picture !== undefined" class="window">
          <img
            :src="urlOf(workPicture, { submission: folio.submission, position: String(shape.picture) })"
            :alt="shape.alt || `Picture on ${leaf.label}, without a description`"
            :style="pictureStyle(shape)"
            draggable="false"
          />
        </div>
        <p v-else-if="shape.alt && shape.blocks.length === 0" class="missing" :data-words="shape.alt" />
        <FolioBlock v-for="(block, index_) in shape.blocks" :key="index_" :block="block" :starts="starts" />
      </div>
      <BoxLayer ref="boxes" :index="index" :label="leaf.label" />
    </div>
    <div v-if="leaf.notes.length > 0" class="notes">
      <p class="name" data-name="Speaker notes" />
      <FolioBlock v-for="(block, at) in leaf.notes" :key="at" :block="block" :starts="noteStarts" />
    </div>
  </div>
</template>

<style scoped>
.frame {
  overflow-x: auto;
}
.name::before {
  content: attr(data-name);
  color: var(--quiet);
  font: 13px var(--sans);
}
.slide {
  position: relative;
  width: var(--leaf-width);
  margin: 2px auto 0;
  container-type: inline-size;
  color: #22201c;
  border: 1px solid var(--hairline);
  overflow: hidden;
}
/* Sizes follow the width of the slide, so they begin inside of it. */
.shape {
  position: absolute;
  font: calc(18 * var(--point)) / 1.2 var(--sans);
  display: flex;
  flex-direction: column;
  box-sizing: border-box;
}
.window {
  position: absolute;
  inset: 0;
  overflow: hidden;
}
.window img {
  position: absolute;
  max-width: none;
  background: none;
}
/* A drawing without any height, e.g. of a level line, would not be drawn at all. */
.line {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  min-width: 1px;
  min-height: 1px;
  overflow: visible;
}
.missing::before {
  content: attr(data-words);
  display: grid;
  place-items: center;
  height: 100%;
  color: #625c52;
}
/* Paragraphs that find no room run over the edge rather than over each other. */
.shape > :deep(*) {
  flex: none;
}
.shape :deep(p),
.shape :deep(h2) {
  min-height: 1em;
  margin: 0 0 0.22em;
  font-weight: inherit;
  line-height: inherit;
}
.shape :deep(.item) {
  margin-inline-start: calc(1.3em + var(--depth) * 1.3em);
}
.shape :deep(.marker::before) {
  color: inherit;
}
.shape :deep(table) {
  height: 100%;
  margin: 0;
  font-size: inherit;
  background: #fff;
}
/* Space in cells as presentations have it: ECMA-376 Part 1, section 21.1.3.17. */
.shape :deep(td),
.shape :deep(th) {
  padding: calc(3.6 * var(--point)) calc(7.2 * var(--point));
  border-color: #8a8378;
}
.notes {
  width: var(--leaf-width);
  margin: 0 auto;
  padding: 10px 18px 12px;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-top: 0;
}
.notes :deep(p) {
  margin-bottom: 0.3em;
  font-size: 15px;
}
</style>
