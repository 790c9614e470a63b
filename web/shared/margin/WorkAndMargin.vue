<script setup lang="ts">
import type { Work } from '#contract/submissions';
import { computed, useTemplateRef } from 'vue';
import FolioView from '../folio/FolioView.vue';
import type { MarginEntry } from './entries.ts';
import MarginColumn from './MarginColumn.vue';

/** The work as paper and the margin beside it; they scroll together. */
const props = defineProps<{ work: Work; entries: readonly MarginEntry[]; focused?: string | undefined }>();
defineEmits<{ pick: [id: string] }>();

const stretches = computed(() =>
  props.entries.flatMap(({ id, kind, passage }) => (passage ? { id, kind, ...passage } : [])),
);
const folioView = useTemplateRef('folioView');
const folio = computed(() => folioView.value?.root ?? null);
defineExpose({ folio });
</script>

<template>
  <div class="scroller">
    <div class="paper">
      <FolioView ref="folioView" :work="work" :stretches="stretches" :focused="focused" @pick="$emit('pick', $event)" />
    </div>
    <div aria-label="Margin" role="region">
      <slot name="above" />
      <MarginColumn :entries="entries" :folio="folio" :focused="focused">
        <template #default="{ entry }"><slot name="entry" :entry="entry" /></template>
      </MarginColumn>
      <slot name="below" />
    </div>
  </div>
</template>

<style scoped>
.scroller {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(280px, 330px);
  align-items: start;
  gap: 24px;
  padding: 24px 20px 120px 24px;
  overflow-y: auto;
}
.paper {
  padding: 40px 32px 56px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
@media (max-width: 900px) {
  .scroller {
    grid-template-columns: minmax(0, 1fr);
    padding: 12px;
  }
  .paper {
    padding: 24px 20px;
  }
}
</style>
