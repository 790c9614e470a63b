<script setup lang="ts">
import { layoutRibbons } from '#core/margin';
import { useResizeObserver } from '@vueuse/core';
import { computed, nextTick, onMounted, ref, shallowRef, useTemplateRef, watch } from 'vue';
import { rangeOf } from '../folio/selection.ts';
import type { MarginEntry } from './entries.ts';

/** The strip beside the work: each entry level with its passage, joined to it by a hairline. */
const props = defineProps<{ entries: readonly MarginEntry[]; folio: Element | null; focused?: string | undefined }>();

const GAP = 10;
const column = useTemplateRef('column');
const items = useTemplateRef<HTMLElement[]>('items');
const heights = ref<Record<string, number>>({});
const passages = shallowRef<Record<string, { top: number; bottom: number; right: number }>>({});

const tops = computed(() =>
  layoutRibbons(
    props.entries.map(({ id }) => ({ passage: passages.value[id]?.top ?? 0, height: heights.value[id] ?? 0 })),
    { gap: GAP, focused: focusedIndex.value },
  ),
);
const focusedIndex = computed(() => {
  const index = props.entries.findIndex(({ id }) => id === props.focused);
  return index < 0 ? undefined : index;
});
const bottom = computed(() =>
  Math.max(0, ...tops.value.map((top, index) => top + (heights.value[props.entries[index]!.id] ?? 0) + GAP)),
);
const hairlines = computed(() =>
  props.entries.flatMap(({ id, kind }, index) => {
    const passage = passages.value[id];
    const top = (tops.value[index] ?? 0) + 16;
    return passage?.right === undefined || passage.right === 0
      ? []
      : [{ id, kind, path: `M${passage.right} ${passage.bottom} L-14 ${passage.bottom} L0 ${top}` }];
  }),
);

function measure(): void {
  const frame = column.value?.getBoundingClientRect();
  if (!frame) return;
  heights.value = Object.fromEntries((items.value ?? []).map((item) => [item.dataset.entry!, item.offsetHeight]));
  passages.value = Object.fromEntries(
    props.entries.map(({ id, passage }) => {
      const lines = passage && props.folio ? rangeOf(props.folio, passage)?.getClientRects() : undefined;
      const first = lines?.[0];
      if (!first) return [id, { top: 0, bottom: 0, right: 0 }];
      return [id, { top: first.top - frame.top, bottom: first.bottom - frame.top, right: first.right - frame.left }];
    }),
  );
}

async function measureSoon(): Promise<void> {
  await nextTick();
  measure();
}

onMounted(() => void measureSoon());
watch(() => [props.entries, props.folio], measureSoon, { flush: 'post' });
useResizeObserver(items as never, measure);
useResizeObserver(() => props.folio as HTMLElement | null, measure);
// Fonts that arrive late move the lines.
void document.fonts.ready.then(measureSoon);
</script>

<template>
  <div ref="column" class="column" :style="{ minHeight: `${bottom}px` }">
    <svg class="hairlines" aria-hidden="true">
      <path
        v-for="line in hairlines"
        :key="line.id"
        :d="line.path"
        :class="[`kind-${line.kind}`, { focused: line.id === focused }]"
      />
    </svg>
    <div
      v-for="(entry, index) in entries"
      :key="entry.id"
      ref="items"
      class="entry"
      :data-entry="entry.id"
      :style="{ transform: `translateY(${tops[index] ?? 0}px)` }"
    >
      <slot :entry="entry" />
    </div>
  </div>
</template>

<style scoped>
.column {
  position: relative;
}
.entry {
  position: absolute;
  inset-inline: 0;
  transition: transform 180ms ease;
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
