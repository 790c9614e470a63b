<script setup lang="ts">
import type { Work } from '#contract/submissions';
import { computed, provide, useTemplateRef } from 'vue';
import { PERFORMANCE } from '../folio/performance.ts';
import FolioView from '../folio/FolioView.vue';
import { SHOWN_INK } from '../ink/shown-ink.ts';
import PaperStage from './PaperStage.vue';
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
  <PaperStage>
    <FolioView
      ref="folioView"
      class="work"
      :work="work"
      :marks="[]"
      leaf-width="100%"
      :style="{ width: `${PAPER_WIDTH}px` }"
    />
  </PaperStage>
</template>

<style scoped>
/* Nothing is scrolled in a photograph: what is wider or taller than its frame makes the leaf larger. */
.work :deep(.sheet) {
  width: max-content;
  min-width: 100%;
}
.work :deep(.leaf > *) {
  max-height: none;
  overflow: visible;
}
/* What is said about a page is no part of it. */
.work :deep(.leaf .note) {
  display: none;
}
</style>
