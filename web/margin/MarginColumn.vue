<script setup lang="ts">
import { median } from '#core/folio';
import { layoutRibbons } from '#core/margin';
import { useEventListener, useIntersectionObserver, useResizeObserver } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, shallowRef, useTemplateRef, watch } from 'vue';
import { shallowSame } from '../folio/stable.ts';
import type { MarginEntry } from './entries.ts';
import { KNOT, placesIn, samePlaces, type Places } from './places.ts';

/** The strip beside the work: each entry level with its passage, joined to it by a hairline. */
const props = defineProps<{ entries: readonly MarginEntry[]; folio: Element | null; focused?: string | undefined }>();

const emit = defineEmits<{ lift: [height: number] }>();

const GAP = 10;
/** More than so many do not glide, and are drawn only while they are near. */
const MANY = 60;
/** How far out of sight a ribbon is still drawn. */
const NEAR = '800px 0px';
/** How high a ribbon is taken to be while none has been measured. */
const USUAL_HEIGHT = 96;
/** The whole work, and what cannot be drawn, stands at the head. */
const AWAY = { top: 0, line: undefined };

const column = useTemplateRef('column');
const items = useTemplateRef<HTMLElement[]>('items');
/** Of those that have been drawn, also where they are gone. */
const heights = shallowRef<Record<string, number>>({});
/** How high one is taken to be that was never drawn: like most others, so that little moves once it is. */
const usual = computed(() => Math.round(median(Object.values(heights.value)) ?? USUAL_HEIGHT));
const heightOf = (id: string): number => heights.value[id] ?? usual.value;
/** Top of each passage, and the line that its hairline starts from; both from the top of the column. */
const passages = shallowRef<Places>({});
/** Where the text ends, left of the column. */
const textEdge = shallowRef(0);

/** The ribbon that stands at its passage. None moves away from under a button that is being pressed. */
const pinned = shallowRef(props.focused);
let pressed = false;
const pin = (): void => void (pinned.value = props.focused);
watch(
  () => props.focused,
  () => pressed || pin(),
);
useEventListener(window, 'pointerdown', () => (pressed = true), { capture: true });
useEventListener(window, ['pointerup', 'pointercancel'], () => {
  pressed = false;
  // The click comes right behind.
  setTimeout(pin);
});

const ribbons = computed(() =>
  props.entries.map(({ id }) => ({ passage: (passages.value[id] ?? AWAY).top, height: heightOf(id) })),
);
const tops = computed(() => {
  // What is about the whole work has no line to stand at.
  const focused = props.entries.findIndex(({ id }) => id === pinned.value && passages.value[id]?.line !== undefined);
  return layoutRibbons(ribbons.value, { gap: GAP, focused: focused < 0 ? undefined : focused });
});
/** How far ribbons stand above the column, because the one in focus left them no room: so far the work must be moved down. */
const lift = computed(() => Math.max(0, -Math.min(0, ...tops.value)));
watch(lift, (height) => emit('lift', height));

/** Each stands so far below the one before: where they touch, one that grows moves the others without being told. */
const spaces = computed(() => {
  const ends = ribbons.value.map(({ height }, index) => tops.value[index]! + height);
  return tops.value.map((top, index) => Math.round((top - (ends[index - 1] ?? 0)) * 100) / 100);
});
/** All hairlines of a kind are one drawing, and the one in focus is its own. */
const hairlines = computed(() => {
  const paths: Record<string, { kind: string; focused: boolean; path: string }> = {};
  props.entries.forEach(({ id, kind }, index) => {
    const line = passages.value[id]?.line;
    if (line === undefined) return;
    const focused = id === props.focused;
    const drawing = (paths[focused ? 'focused' : kind] ??= { kind, focused, path: '' });
    drawing.path += `M${textEdge.value} ${line} L-12 ${line} L0 ${tops.value[index]! + KNOT}`;
  });
  return paths;
});

const many = computed(() => props.entries.length > MANY);
const near = shallowRef<ReadonlySet<string>>(new Set());
/** One that was at hand may hold what somebody has begun to write: it stays. */
const held = shallowRef<ReadonlySet<string>>(new Set());
watch(
  () => props.focused,
  (id) => id !== undefined && (held.value = new Set(held.value).add(id)),
  { immediate: true },
);
const drawn = computed(
  () =>
    new Set(props.entries.map(({ id }) => id).filter((id) => !many.value || near.value.has(id) || held.value.has(id))),
);

/** Measuring happens often, and most often finds what it found before: then nothing is drawn again. */
function measureRibbons(changed: readonly HTMLElement[]): void {
  const found = { ...heights.value };
  for (const item of changed) {
    const id = item.dataset.entry!;
    if (drawn.value.has(id)) found[id] = item.getBoundingClientRect().height;
  }
  if (!shallowSame(heights.value, found)) heights.value = found;
}

function measurePassages(): void {
  if (!column.value || !props.folio) return;
  const { top, left } = column.value.getBoundingClientRect();
  textEdge.value = props.folio.getBoundingClientRect().right - left + 6;
  const found = placesIn(props.folio, top);
  if (!samePlaces(passages.value, found)) passages.value = found;
}

/** The list of elements itself does not tell when one joins it. */
const places = shallowRef<HTMLElement[]>([]);

/** At most once before each painting: whatever changes, it is looked at when all of it has changed. */
let frame = 0;
function measureSoon(): void {
  frame ||= requestAnimationFrame(() => {
    frame = 0;
    if (!shallowSame(places.value, items.value ?? [])) places.value = [...(items.value ?? [])];
    measureRibbons(places.value);
    measurePassages();
  });
}
onBeforeUnmount(() => cancelAnimationFrame(frame));

onMounted(measureSoon);
watch(() => [props.entries, props.folio], measureSoon);
useResizeObserver(places, (changes) => measureRibbons(changes.map(({ target }) => target as HTMLElement)));
useResizeObserver(() => props.folio as HTMLElement | null, measureSoon);
// What stands above the column in the margin moves it.
useResizeObserver(() => column.value?.parentElement, measureSoon);
// Fonts that arrive late move the lines.
void document.fonts.ready.then(measureSoon);

useIntersectionObserver(
  () => (many.value ? places.value : []),
  (changes) => {
    const now = new Set(near.value);
    for (const { target, isIntersecting } of changes)
      now[isIntersecting ? 'add' : 'delete']((target as HTMLElement).dataset.entry!);
    near.value = now;
  },
  { rootMargin: NEAR },
);
</script>

<template>
  <div ref="column" class="column" :class="{ many }" :style="{ marginTop: `${lift}px` }">
    <svg class="hairlines" aria-hidden="true">
      <path
        v-for="(drawing, name) in hairlines"
        :key="name"
        :d="drawing.path"
        :class="[`kind-${drawing.kind}`, { focused: drawing.focused }]"
      />
    </svg>
    <div
      v-for="(entry, index) in entries"
      :key="entry.id"
      ref="items"
      v-memo="[spaces[index], drawn.has(entry.id) ? {} : heightOf(entry.id)]"
      class="entry"
      :data-entry="entry.id"
      :style="{
        marginTop: `${spaces[index] ?? 0}px`,
        height: drawn.has(entry.id) ? undefined : `${heightOf(entry.id)}px`,
      }"
    >
      <slot v-if="drawn.has(entry.id)" :entry="entry" />
    </div>
  </div>
</template>

<style scoped>
.column {
  display: flow-root;
  position: relative;
  padding-bottom: 10px;
}
.entry {
  contain: layout style;
}
/* Hundreds that glide would be laid out anew in every frame. */
.column:not(.many) > .entry {
  transition: margin-top 180ms ease;
}
.hairlines {
  position: absolute;
  inset: 0;
  overflow: visible;
  pointer-events: none;
}
path {
  fill: none;
  stroke: var(--hairline);
  stroke-width: 1;
}
path.focused {
  stroke: var(--kind);
  stroke-width: 1.5;
}
</style>
