<script setup lang="ts">
import { pathOf, type DrawnStroke, type InkTool } from '#core/ink';
import type { Anchor } from '#core/anchor';
import type { Ink } from '#contract/ink';
import { computed, inject, nextTick, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { HIGHLIGHTER, useInkTools } from './ink-tools.ts';
import InkMark from './InkMark.vue';
import { INKING, TALKED } from './inking.ts';
import { SHOWN_INK } from './shown-ink.ts';
import { useCursor } from './use-cursor.ts';
import { useGround } from './use-ground.ts';
import { useHand } from './use-hand.ts';
import { useLasso, type Lying } from './use-lasso.ts';

/** What was drawn on a leaf, and where one draws. */
const props = defineProps<{
  index: number;
  label: string;
  /** All remarks on the work. */
  marks: readonly { id: string; anchor: Anchor; ink?: Ink | null }[];
  focused?: string | undefined;
  /** Changes with whatever may move the words. */
  layout?: unknown;
  /** The stretch of the text that stands here, where strokes hang on its words; otherwise they lie on the leaf as it is. */
  words?: { start: number; end: number };
}>();

/** Points. */
const LONGEST = 3000;

const inking = inject(INKING, undefined);
const { on, hand, colour, width: thick, recolour } = useInkTools();
const layer = useTemplateRef('layer');
const canvas = useTemplateRef('canvas');
const field = useTemplateRef('field');
const active = computed(() => inking !== undefined && on.value);

const inked = computed(() =>
  props.marks.flatMap(({ id, ink, anchor }) => {
    if (!ink) return [];
    const { words, index } = props;
    if (anchor.type === 'region') return !words && anchor.leaf === index ? [{ id, ink, start: 0 }] : [];
    if (anchor.type !== 'passage' || !words || anchor.start < words.start || anchor.start >= words.end) return [];
    return [{ id, ink, start: anchor.start }];
  }),
);

const shown = inject(SHOWN_INK, undefined);
const talked = computed(() =>
  (shown?.strokes.value ?? []).filter(({ leaf, start }) =>
    start === undefined
      ? !props.words && leaf === props.index
      : props.words && start >= props.words.start && start < props.words.end,
  ),
);

const ground = useGround({
  layer: () => layer.value,
  index: () => props.index,
  onWords: () => props.words !== undefined,
  needed: () => active.value || inked.value.length > 0 || talked.value.length > 0,
  layout: () => props.layout,
});

const lying = (): Lying[] => [
  ...inked.value.flatMap(({ id, ink, start }) =>
    ink.map((stroke) => ({ remark: id, stroke, parts: ground.value?.draw(stroke, start) ?? [] })),
  ),
  ...talked.value
    .filter(({ until = 0 }) => until >= 0)
    .map(({ ink: [stroke], start = 0 }) => ({
      ...{ remark: TALKED, stroke },
      parts: ground.value?.draw(stroke, start) ?? [],
    })),
];

const look = (): Omit<DrawnStroke, 'points'> => ({
  tool: hand.value as InkTool,
  colour: colour.value,
  width: thick.value * (hand.value === 'highlighter' ? HIGHLIGHTER : 1),
});

/** The label that is being written. */
const writing = shallowRef<DrawnStroke>();
const written = ref('');

function keep(stroke: DrawnStroke): void {
  if (stroke.tool === 'label' && stroke.text === undefined) {
    written.value = '';
    writing.value = stroke;
    return void nextTick(() => field.value?.focus());
  }
  for (const part of inParts(stroke)) {
    const placed = ground.value?.keep(part);
    if (placed) inking?.draw(placed);
  }
}

/** Whoever does not lift the pen for a minute makes several strokes, so that each can be sent. */
function inParts(stroke: DrawnStroke): DrawnStroke[] {
  const parts: DrawnStroke[] = [];
  for (let from = 0; from === 0 || from < stroke.points.length - 1; from += LONGEST)
    parts.push({ ...stroke, points: stroke.points.slice(from, from + LONGEST + 1) });
  return parts;
}

function write(): void {
  const stroke = writing.value;
  writing.value = undefined;
  if (stroke && written.value.trim() !== '') keep({ ...stroke, text: written.value.trim() });
}

const lasso = useLasso(() => ground.value);
recolour.on((to) => {
  if (lasso.chosen.value.length > 0) inking?.change(lasso.recoloured(to));
  lasso.drop();
});
const inSight = (): { x: number; y: number } => {
  const frame = layer.value!.getBoundingClientRect();
  const middle = (from: number, size: number, whole: number): number =>
    (Math.max(0, from) + Math.min(whole, from + size)) / 2 - from;
  return {
    x: middle(frame.left, frame.width, window.innerWidth),
    y: middle(frame.top, frame.height, window.innerHeight),
  };
};
const cursor = useCursor(look, inSight, keep);
watch([hand, active], () => {
  lasso.drop();
  cursor.drop();
});

const pen = useHand({
  layer: () => layer.value,
  canvas: () => canvas.value,
  ...{ look, lying, lasso, keep },
  change: (changes) => inking?.change(changes),
});

/** Where somebody pressed, a label is written. */
function press(event: MouseEvent): void {
  if (hand.value === 'label' && !writing.value) keep({ ...look(), points: [pen.place(event)] });
}

function key(event: KeyboardEvent): void {
  if (event.key === 'Delete' && lasso.chosen.value.length > 0) {
    inking?.change(lasso.erased());
    lasso.drop();
  } else if (!cursor.key(event)) return;
  event.preventDefault();
  event.stopPropagation();
}
</script>

<template>
  <div ref="layer" class="ink" :class="{ surface: !words }">
    <svg aria-hidden="true">
      <template v-if="ground">
        <InkMark
          v-for="mark in inked"
          :key="mark.id"
          :ink="mark.ink"
          :ground="ground"
          :start="mark.start"
          :focused="mark.id === focused"
        />
        <InkMark
          v-for="{ key: stroke, ink, start, until } in talked"
          :key="stroke"
          :ink="ink"
          :ground="ground"
          :start="start ?? 0"
          :until="until"
          :pressable="shown?.pick !== undefined && !active && (until ?? 0) >= 0"
          @pick="shown?.pick?.(stroke)"
        />
      </template>
      <template v-if="active">
        <polyline class="loop" :points="lasso.loop.value.map(({ x, y }) => `${x},${y}`).join(' ')" />
        <path
          v-for="(stroke, at) in lasso.moved.value"
          :key="at"
          class="ghost"
          :d="pathOf(stroke).d"
          :stroke-width="stroke.width"
        />
        <template v-if="lasso.box.value">
          <rect
            class="loop"
            :x="lasso.box.value.left"
            :y="lasso.box.value.top"
            :width="lasso.box.value.right - lasso.box.value.left"
            :height="lasso.box.value.bottom - lasso.box.value.top"
          />
          <circle class="corner" :cx="lasso.box.value.right" :cy="lasso.box.value.bottom" r="7" />
        </template>
        <path v-if="cursor.shape.value" class="ghost" :d="pathOf(cursor.shape.value).d" :stroke-width="thick" />
        <path
          v-if="cursor.at.value"
          class="cross"
          :d="`M${cursor.at.value.x - 9} ${cursor.at.value.y}h18M${cursor.at.value.x} ${cursor.at.value.y - 9}v18`"
        />
      </template>
    </svg>
    <template v-if="active">
      <canvas ref="canvas" :class="`kind-${colour}`" aria-hidden="true" />
      <div
        class="hand"
        tabindex="0"
        role="application"
        :aria-label="`Draw on ${label}. With a shape: arrow keys move, Enter begins and ends it.`"
        @mousedown.prevent
        @pointerdown.stop="pen.down"
        @pointermove="pen.move"
        @pointerup="pen.up"
        @pointercancel="pen.cancel"
        @click="press"
        @keydown="key"
      />
      <input
        v-if="writing"
        ref="field"
        v-model="written"
        class="label"
        maxlength="200"
        aria-label="Words to write there"
        :style="{ left: `${writing.points[0]!.x}px`, top: `${writing.points[0]!.y}px` }"
        @keydown.stop
        @keydown.enter="write"
        @keydown.esc="writing = undefined"
        @blur="write"
      />
    </template>
  </div>
</template>

<style scoped>
.ink {
  position: absolute;
  inset: 0;
  z-index: 1;
  pointer-events: none;
}
.ink.surface {
  --drawn-ink: #22201c;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  overflow: visible;
}
canvas {
  position: absolute;
  color: var(--kind);
}
.hand {
  position: absolute;
  inset: 0;
  cursor: crosshair;
  pointer-events: auto;
  touch-action: none;
  user-select: none;
}
.surface .hand {
  right: calc(-1 * var(--beside, 0px));
}
.hand:focus-visible {
  outline: 2px solid var(--quiet);
  outline-offset: 2px;
}
.loop {
  fill: none;
  stroke: var(--ink);
  stroke-dasharray: 5 4;
}
.corner {
  fill: var(--ink);
}
.ghost {
  fill: none;
  stroke: var(--quiet);
  opacity: 0.6;
}
.cross {
  stroke: var(--ink);
  stroke-width: 2;
}
.label {
  position: absolute;
  min-width: 160px;
  padding: 2px 6px;
  background: var(--paper);
  border: 1px solid var(--ink);
  font: 600 16px var(--sans);
  pointer-events: auto;
  transform: translateY(-100%);
}
</style>
