<script setup lang="ts">
import type { Leaf } from '#core/folio';
import {
  mdiArrowExpandHorizontal,
  mdiArrowExpandVertical,
  mdiDraw,
  mdiMagnifyMinusOutline,
  mdiMagnifyPlusOutline,
  mdiSelectDrag,
} from '@mdi/js';
import { useEventListener, useThrottleFn } from '@vueuse/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useInkTools } from '../ink/ink-tools.ts';
import type { FolioZoom } from './use-zoom.ts';
import { percent as inPercent } from '../wording/format.ts';

// An essay has one leaf.
const LeafNumber = defineAsyncComponent(() => import('./LeafNumber.vue'));

/** Above the work: how large it is shown, which page or slide this is, and drawing boxes. */
const props = defineProps<{
  leaves: readonly Leaf[];
  zoom: FolioZoom;
  folio: HTMLElement | null;
  choosing?: boolean;
}>();
const { on: drawing } = useInkTools();
const boxing = defineModel<boolean>('boxing', { required: true });

const here = ref(0);
const drawn = computed(() =>
  props.leaves.some(({ kind }) => kind === 'page' || kind === 'slide' || kind === 'picture'),
);
const written = computed(() =>
  props.leaves.some(({ kind }) => kind === 'text' || kind === 'answer' || kind === 'sheet'),
);
const noun = computed(() => {
  const kinds = new Set(props.leaves.map(({ kind }) => kind));
  const [kind] = kinds;
  const names: Partial<Record<Leaf['kind'], string>> = {
    page: 'Page',
    slide: 'Slide',
    picture: 'Picture',
    answer: 'Question',
  };
  return (kinds.size === 1 && names[kind!]) || 'Part';
});

/** The leaf that stands at the upper third of the window. */
const look = useThrottleFn(
  () => {
    const line = window.innerHeight / 3;
    const leaves = [...(props.folio?.querySelectorAll('[data-leaf]') ?? [])];
    const index = leaves.findLastIndex((leaf) => leaf.getBoundingClientRect().top <= line);
    here.value = Math.max(0, index);
  },
  100,
  true,
);
useEventListener(document, 'scroll', look, { capture: true, passive: true });

function goTo(number: number): void {
  const index = Math.min(props.leaves.length, Math.max(1, Math.round(number) || 1)) - 1;
  here.value = index;
  props.folio?.querySelector(`[data-leaf="${index}"]`)?.scrollIntoView({ block: 'start' });
}

const percent = computed(() => {
  const { zoom, leafWidth, textZoom } = props.zoom;
  if (!drawn.value) return inPercent(textZoom.value);
  return zoom.value === 'width'
    ? 'width'
    : zoom.value === 'page'
      ? 'page'
      : inPercent(parseFloat(leafWidth.value) / 100);
});
const step = (by: 1 | -1): void => {
  if (drawn.value) props.zoom.step(by, 'leaf');
  if (written.value) props.zoom.step(by, 'text');
};
</script>

<template>
  <div class="tools" role="toolbar" aria-label="How the work is shown">
    <span v-if="leaves.length > 1" class="figures go">
      {{ noun }}
      <LeafNumber
        :at="here + 1"
        :most="leaves.length"
        :label="`${noun} that is shown; type another to go there`"
        @go="goTo"
      />
      of {{ leaves.length }}
    </span>
    <span class="gap" />
    <v-btn
      v-if="choosing && (drawn || written)"
      size="small"
      :variant="drawing ? 'flat' : 'text'"
      :color="drawing ? 'primary' : undefined"
      :prepend-icon="mdiDraw"
      :aria-pressed="drawing"
      title="Draw on the work (I)"
      @mousedown.prevent
      @click="drawing = !drawing"
      >Draw</v-btn
    >
    <v-btn
      v-if="drawn && choosing"
      size="small"
      :variant="boxing ? 'flat' : 'text'"
      :color="boxing ? 'primary' : undefined"
      :prepend-icon="mdiSelectDrag"
      :aria-pressed="boxing"
      title="Draw a box (M)"
      @mousedown.prevent
      @click="boxing = !boxing"
      >Box</v-btn
    >
    <template v-if="drawn || written">
      <v-btn
        :icon="mdiMagnifyMinusOutline"
        size="30"
        aria-label="Show it smaller"
        title="Smaller"
        @mousedown.prevent
        @click="step(-1)"
      />
      <span class="figures percent" aria-live="polite">{{ percent }}</span>
      <v-btn
        :icon="mdiMagnifyPlusOutline"
        size="30"
        aria-label="Show it larger"
        title="Larger"
        @mousedown.prevent
        @click="step(1)"
      />
    </template>
    <template v-if="drawn">
      <v-btn
        :icon="mdiArrowExpandHorizontal"
        size="30"
        aria-label="Fit the width"
        title="Fit the width"
        @mousedown.prevent
        @click="zoom.fit('width')"
      />
      <v-btn
        :icon="mdiArrowExpandVertical"
        size="30"
        aria-label="Fit the page"
        title="Fit the page"
        @mousedown.prevent
        @click="zoom.fit('page')"
      />
    </template>
  </div>
</template>

<style scoped>
.tools {
  position: sticky;
  top: 0;
  z-index: 2;
  display: flex;
  align-items: center;
  gap: 4px;
  height: 44px;
  margin-bottom: 6px;
  color: var(--quiet);
  font-size: 13px;
  background: var(--ground);
}
.gap {
  flex: 1;
}
.go {
  display: flex;
  align-items: center;
  gap: 6px;
}
.percent {
  min-width: 3.6em;
  text-align: center;
}
</style>
