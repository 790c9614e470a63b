<script setup lang="ts">
import { mdiChevronLeft, mdiChevronRight, mdiClose } from '@mdi/js';
import { useSwipe } from '@vueuse/core';
import { useTemplateRef } from 'vue';

/** The remark in hand, where there is no room for a margin: it rises from the bottom, and swiping leads to the next one. */
defineProps<{
  /** From 1. */
  position: number;
  count: number;
}>();
const emit = defineEmits<{ go: [by: 1 | -1]; close: [] }>();

/** CSS pixels that a finger has to travel. */
const FAR = 60;

const sheet = useTemplateRef('sheet');
/** What is dragged by itself, e.g. through a recording. */
const OWN_DRAG = 'input, textarea, [role="slider"], .wave';
let ownDrag = false;
useSwipe(sheet, {
  threshold: FAR,
  // A swipe to the side scrolls nothing: otherwise the browser would swallow what is pressed while it runs out.
  passive: false,
  onSwipeStart: (event) => (ownDrag = event.target instanceof Element && event.target.closest(OWN_DRAG) !== null),
  onSwipeEnd: (_event, direction) => {
    if (ownDrag) return;
    if (direction === 'left') emit('go', 1);
    if (direction === 'right') emit('go', -1);
    if (direction === 'down' && sheet.value?.scrollTop === 0) emit('close');
  },
});
</script>

<template>
  <aside ref="sheet" class="sheet" aria-label="The remark in hand" @keydown.esc.stop="$emit('close')">
    <header>
      <v-btn
        :icon="mdiChevronLeft"
        size="40"
        aria-label="Previous remark"
        :disabled="position <= 1"
        @click="$emit('go', -1)"
      />
      <span class="figures" role="status">{{ position }} of {{ count }}</span>
      <v-btn
        :icon="mdiChevronRight"
        size="40"
        aria-label="Next remark"
        :disabled="position >= count"
        @click="$emit('go', 1)"
      />
      <v-btn :icon="mdiClose" size="40" class="close" aria-label="Close the remark" @click="$emit('close')" />
    </header>
    <slot />
  </aside>
</template>

<style scoped>
.sheet {
  position: fixed;
  inset: auto 0 var(--below, 0px) 0;
  z-index: 20;
  max-height: 52dvh;
  padding: 0 12px calc(12px + env(safe-area-inset-bottom));
  overflow-y: auto;
  overscroll-behavior: contain;
  touch-action: pan-y pinch-zoom;
  background: var(--ground);
  border-top: 1px solid var(--hairline);
  box-shadow: 0 -4px 20px color-mix(in srgb, var(--ink) 16%, transparent);
}
header {
  position: sticky;
  top: 0;
  z-index: 1;
  display: flex;
  gap: 4px;
  align-items: center;
  background: var(--ground);
}
.close {
  margin-left: auto;
}
</style>
