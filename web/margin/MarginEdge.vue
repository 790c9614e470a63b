<script setup lang="ts">
import { layoutRibbons } from '#core/margin';
import { useResizeObserver } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, shallowRef, useTemplateRef, watch } from 'vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import { useAnchorName } from '../feedback/use-anchor-name.ts';
import type { MarginEntry } from './entries.ts';
import { placesIn, samePlaces, type Places } from './places.ts';

/** Where there is no room for a margin: a small mark for each entry at the edge of the work, level with its passage. */
const props = defineProps<{ entries: readonly MarginEntry[]; folio: Element | null; focused?: string | undefined }>();
defineEmits<{ pick: [id: string] }>();

/** Of a mark, in CSS pixels: large enough for a finger. */
const HEIGHT = 32;
const GAP = 2;

const margin = useMarginKey();
const anchorName = useAnchorName();
const edge = useTemplateRef('edge');
const places = shallowRef<Places>({});
const tops = computed(() =>
  layoutRibbons(
    props.entries.map(({ id }) => ({ passage: places.value[id]?.top ?? 0, height: HEIGHT })),
    { gap: GAP },
  ),
);
const marks = computed(() =>
  props.entries.map(({ id, kind, anchor }, index) => {
    const { name, glyph } = margin.entry(kind);
    return { id, kind, glyph, label: `${name} about ${anchorName(anchor)}`, top: tops.value[index]! };
  }),
);

let frame = 0;
function measureSoon(): void {
  frame ||= requestAnimationFrame(() => {
    frame = 0;
    if (!edge.value || !props.folio) return;
    const found = placesIn(props.folio, edge.value.getBoundingClientRect().top);
    if (!samePlaces(places.value, found)) places.value = found;
  });
}
onMounted(measureSoon);
onBeforeUnmount(() => cancelAnimationFrame(frame));
watch(() => [props.entries, props.folio], measureSoon);
useResizeObserver(() => props.folio as HTMLElement | null, measureSoon);
void document.fonts.ready.then(measureSoon);
</script>

<template>
  <nav ref="edge" class="edge" aria-label="Remarks at their passages">
    <button
      v-for="mark in marks"
      :key="mark.id"
      type="button"
      :class="[`kind-${mark.kind}`, { focused: mark.id === focused }]"
      :style="{ top: `${mark.top}px`, height: `${HEIGHT}px` }"
      :aria-label="mark.label"
      :aria-current="mark.id === focused"
      @click="$emit('pick', mark.id)"
    >
      <span aria-hidden="true">{{ mark.glyph }}</span>
    </button>
  </nav>
</template>

<style scoped>
.edge {
  position: absolute;
  inset: 0 0 auto auto;
  width: 34px;
}
button {
  display: grid;
  place-items: center;
  position: absolute;
  right: 0;
  width: 34px;
  color: var(--kind);
  font-weight: 650;
  background: var(--paper);
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
button.focused {
  color: var(--paper);
  background: var(--kind);
  border-color: var(--kind);
}
</style>
