<script setup lang="ts">
import type { RegionAnchor } from '#core/anchor';
import { useEventListener } from '@vueuse/core';
import { computed, defineAsyncComponent, shallowRef, useTemplateRef } from 'vue';
import StampDrawing from './StampDrawing.vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import { focusWork, useFolio } from './folio-context.ts';

/**
 * Boxes over a page, slide or picture: those of remarks, and the one that is being drawn. A drag that begins on words selects
 * them; one that begins beside them draws a box.
 */
const props = defineProps<{ index: number; label: string }>();

// Most works have no ink.
const InkLayer = defineAsyncComponent(() => import('../ink/InkLayer.vue'));

const SMALLEST_PIXELS = 6;
const STEP = 0.01;

const folio = useFolio();
const margin = useMarginKey();
const layer = useTemplateRef('layer');
const drawing = shallowRef<{ x: number; y: number }>();
/** The chosen box in the hand: where it was taken, what it was, and whether it is being made larger. */
const held = shallowRef<{ from: { x: number; y: number }; box: RegionAnchor; sizing: boolean }>();

const marks = computed(() =>
  folio.marks.flatMap((mark) =>
    mark.anchor.type === 'region' && mark.anchor.leaf === props.index ? [{ ...mark, anchor: mark.anchor }] : [],
  ),
);
const target = computed(() =>
  folio.target?.type === 'region' && folio.target.leaf === props.index ? folio.target : undefined,
);

const percent = ({ x, y, width, height }: RegionAnchor): Record<string, string> => ({
  left: `${x * 100}%`,
  top: `${y * 100}%`,
  width: `${width * 100}%`,
  height: `${height * 100}%`,
});

const between = (value: number): number => Math.min(1, Math.max(0, value));

function place(event: PointerEvent): { x: number; y: number } {
  const frame = layer.value!.getBoundingClientRect();
  return {
    x: between((event.clientX - frame.left) / frame.width),
    y: between((event.clientY - frame.top) / frame.height),
  };
}

/** Called by the leaf for each press on it. */
function begin(event: PointerEvent): void {
  const on = event.target as Element;
  if (!folio.choosing || event.button !== 0 || on.closest('button, a')) return;
  if (!folio.boxing && on.closest('[data-start], .text')) return;
  event.preventDefault();
  document.getSelection()?.removeAllRanges();
  focusWork(layer.value);
  drawing.value = place(event);
  folio.choose(undefined);
}

function hold(event: PointerEvent, sizing: boolean): void {
  if (!folio.choosing || event.button !== 0 || !target.value) return;
  held.value = { from: place(event), box: target.value, sizing };
}

useEventListener(window, 'pointermove', (event: PointerEvent) => {
  if (held.value) {
    const { from, box, sizing } = held.value;
    const to = place(event);
    return folio.choose((sizing ? sized : shifted)(box, to.x - from.x, to.y - from.y));
  }
  if (!drawing.value) return;
  const from = drawing.value;
  const to = place(event);
  const frame = layer.value!.getBoundingClientRect();
  const [width, height] = [Math.abs(to.x - from.x), Math.abs(to.y - from.y)];
  if (width * frame.width < SMALLEST_PIXELS || height * frame.height < SMALLEST_PIXELS) return;
  folio.choose({
    type: 'region',
    leaf: props.index,
    x: Math.min(from.x, to.x),
    y: Math.min(from.y, to.y),
    width,
    height,
  });
});
useEventListener(window, ['pointerup', 'pointercancel'], () => (drawing.value = held.value = undefined));

const shifted = (box: RegionAnchor, x: number, y: number): RegionAnchor => ({
  ...box,
  x: Math.min(1 - box.width, Math.max(0, box.x + x)),
  y: Math.min(1 - box.height, Math.max(0, box.y + y)),
});

const sized = (box: RegionAnchor, x: number, y: number): RegionAnchor => ({
  ...box,
  width: Math.min(1 - box.x, Math.max(STEP, box.width + x)),
  height: Math.min(1 - box.y, Math.max(STEP, box.height + y)),
});

/** The box that is chosen moves with the arrow keys, and grows and shrinks with them while Shift is held. */
function nudge(event: KeyboardEvent): void {
  const [x, y] =
    { ArrowLeft: [-STEP, 0], ArrowRight: [STEP, 0], ArrowUp: [0, -STEP], ArrowDown: [0, STEP] }[event.key] ?? [];
  const box = target.value;
  if (!box || x === undefined || y === undefined) return;
  event.preventDefault();
  event.stopPropagation();
  folio.choose((event.shiftKey ? sized : shifted)(box, x, y));
}

defineExpose({ begin });
</script>

<template>
  <div ref="layer" class="layer" :class="{ boxing: folio.boxing }">
    <button
      v-for="mark in marks"
      :key="mark.id"
      type="button"
      class="box"
      :class="[`kind-${mark.kind}`, { focused: mark.id === folio.focused, stamped: mark.stamp, inked: mark.ink }]"
      :style="percent(mark.anchor)"
      :data-remarks="mark.id"
      :aria-label="`${margin.entry(mark.kind).name}: go to the remark about this part of ${label}`"
      @click="folio.pick(mark.id)"
    >
      <StampDrawing v-if="mark.stamp" :stamp="mark.stamp" :remark="mark.id" />
      <span v-else-if="!mark.ink" class="glyph" aria-hidden="true" :data-glyph="margin.entry(mark.kind).glyph" />
    </button>
    <div
      v-if="target"
      class="box chosen"
      tabindex="0"
      role="img"
      :style="percent(target)"
      :aria-label="`Chosen part of ${label}. Arrow keys move it, Shift and arrow keys change its size.`"
      @keydown="nudge"
      @pointerdown.stop="hold($event, false)"
    >
      <span class="corner" @pointerdown.stop="hold($event, true)" />
    </div>
    <InkLayer v-if="folio.inked" :index="index" :label="label" :marks="folio.marks" :focused="folio.focused" />
  </div>
</template>

<style scoped>
.layer {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.layer.boxing {
  pointer-events: auto;
  cursor: crosshair;
}
.box {
  position: absolute;
  border: 3px var(--kind-border) var(--kind);
  border-radius: 3px;
  pointer-events: auto;
}
.box.stamped,
.box.inked:not(.focused) {
  border-color: transparent;
}
.box.inked.focused {
  border-width: 1px;
  background: none;
}
.box.focused {
  background: color-mix(in srgb, var(--kind) 18%, transparent);
  box-shadow: 0 0 0 2px var(--paper);
}
.box.chosen {
  border: 2px dashed #22201c;
  background: rgb(34 32 28 / 10%);
  outline-offset: 3px;
  cursor: move;
  touch-action: none;
}
.corner {
  position: absolute;
  right: -7px;
  bottom: -7px;
  width: 14px;
  height: 14px;
  background: #22201c;
  border: 2px solid #fbf8f2;
  border-radius: 50%;
  cursor: nwse-resize;
}
.glyph {
  position: absolute;
  top: -3px;
  left: -3px;
  min-width: 20px;
  padding: 0 4px;
  background: var(--kind);
  color: var(--paper);
  font: 600 13px/20px var(--sans);
  text-align: center;
  border-radius: 3px 0 3px 0;
}
.glyph::before {
  content: attr(data-glyph);
}
</style>
