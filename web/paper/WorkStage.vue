<script setup lang="ts">
import type { Work } from '#contract/submissions';
import { computed, provide, useTemplateRef } from 'vue';
import { PERFORMANCE } from '../folio/performance.ts';
import FolioView from '../folio/FolioView.vue';
import { SHOWN_INK } from '../ink/shown-ink.ts';
import { PAPER_WIDTH } from './photograph.ts';

/** The work alone, without a single remark, where nobody sees it: it is photographed, for a film or a file. */
defineProps<{ work: Work }>();

provide(SHOWN_INK, { strokes: computed(() => []), pick: undefined });
provide(PERFORMANCE, { along: () => computed(() => undefined), leave: () => undefined });

const folioView = useTemplateRef('folioView');
const root = computed(() => folioView.value?.root ?? null);
defineExpose({ root });
</script>

<template>
  <Teleport to="body">
    <div class="stage" inert aria-hidden="true">
      <FolioView ref="folioView" :work="work" :marks="[]" leaf-width="100%" :style="{ width: `${PAPER_WIDTH}px` }" />
    </div>
  </Teleport>
</template>

<style scoped>
/* In the window, since pages are drawn only where they could be seen; but behind everything. */
.stage {
  position: fixed;
  inset: 0;
  z-index: -1;
  overflow: auto;
  opacity: 0;
  pointer-events: none;
}
/* Nothing is scrolled in a photograph: what is wider or taller than its frame makes the leaf larger. */
.stage :deep(.sheet) {
  width: max-content;
  min-width: 100%;
}
.stage :deep(.leaf > *) {
  max-height: none;
  overflow: visible;
}
</style>
