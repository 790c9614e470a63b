<script setup lang="ts">
import type { Anchor } from '#core/anchor';
import type { Work } from '#contract/submissions';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import FolioTools from '../folio/FolioTools.vue';
import FolioView from '../folio/FolioView.vue';
import { useZoom } from '../folio/use-zoom.ts';
import type { MarginEntry } from './entries.ts';
import MarginColumn from './MarginColumn.vue';

/** The work as paper and the margin beside it; they scroll together. */
defineProps<{
  work: Work;
  entries: readonly MarginEntry[];
  focused?: string | undefined;
  target?: Anchor | undefined;
  /** Whether boxes, stretches, cells and answers can be chosen. */
  choosing?: boolean;
}>();
defineEmits<{ pick: [id: string]; choose: [anchor: Anchor | undefined] }>();
const boxing = defineModel<boolean>('boxing', { default: false });

const scroller = useTemplateRef('scroller');
const column = useTemplateRef('column');
const folioView = useTemplateRef('folioView');
const folio = computed(() => folioView.value?.root ?? null);
const zoom = useZoom(scroller, column);

const lift = ref(0);

/** Work and margin are moved together, and scrolled by as much: nothing seems to move but the ribbons. */
async function liftTo(height: number): Promise<void> {
  const by = height - lift.value;
  lift.value = height;
  await nextTick();
  scroller.value?.scrollBy({ top: by, behavior: 'instant' });
}

defineExpose({ folio });
</script>

<template>
  <div ref="scroller" class="scroller">
    <div ref="column" class="work" :style="{ paddingTop: `${lift}px` }">
      <FolioTools
        v-model:boxing="boxing"
        :leaves="work.folio.leaves"
        :zoom="zoom"
        :folio="folio"
        :choosing="choosing"
      />
      <FolioView
        ref="folioView"
        :work="work"
        :marks="entries"
        :focused="focused"
        :target="target"
        :choosing="choosing"
        :boxing="boxing"
        :leaf-width="zoom.leafWidth.value"
        :text-zoom="zoom.textZoom.value"
        @pick="$emit('pick', $event)"
        @choose="$emit('choose', $event)"
      />
    </div>
    <div aria-label="Margin" role="region">
      <slot name="above" />
      <MarginColumn :entries="entries" :folio="folio" :focused="focused" @lift="liftTo">
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
  padding: 0 20px 120px 24px;
  overflow-y: auto;
}
.scroller > [role='region'] {
  padding-top: 56px;
}
@media (max-width: 900px) {
  .scroller {
    grid-template-columns: minmax(0, 1fr);
    padding: 0 12px 24px;
  }
  .scroller > [role='region'] {
    padding-top: 0;
  }
}
</style>
