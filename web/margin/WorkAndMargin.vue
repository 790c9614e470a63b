<script setup lang="ts">
import type { Anchor } from '#core/anchor';
import type { Work } from '#contract/submissions';
import { computed, defineAsyncComponent, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useInkTools } from '../ink/ink-tools.ts';
import FolioTools from '../folio/FolioTools.vue';
import FolioView from '../folio/FolioView.vue';
import { useZoom } from '../folio/use-zoom.ts';
import type { MarginEntry } from './entries.ts';
import MarginColumn from './MarginColumn.vue';
import { useNarrow } from './use-narrow.ts';

// Only where there is no room for a margin.
const InkBar = defineAsyncComponent(() => import('../ink/InkBar.vue'));
const MarginEdge = defineAsyncComponent(() => import('./MarginEdge.vue'));
const RemarkSheet = defineAsyncComponent(() => import('./RemarkSheet.vue'));

/** The work as paper and the margin beside it; they scroll together. On a phone there are marks at its edge, and a sheet for the one in hand. */
const props = defineProps<{
  work: Work;
  entries: readonly MarginEntry[];
  /** Marks on the work that have nothing beside them, and the one of them that is spoken about. */
  also?: readonly MarginEntry[];
  lit?: string | undefined;
  focused?: string | undefined;
  /** What is being made just now; on a phone it is in hand. */
  now?: string | undefined;
  target?: Anchor | undefined;
  /** Whether boxes, stretches, cells and answers can be chosen. */
  choosing?: boolean;
}>();
const emit = defineEmits<{ pick: [id: string]; choose: [anchor: Anchor | undefined]; leave: [] }>();
const boxing = defineModel<boolean>('boxing', { default: false });

const marks = computed(() => (props.also?.length ? [...props.entries, ...props.also] : props.entries));
const scroller = useTemplateRef('scroller');
const column = useTemplateRef('column');
const folioView = useTemplateRef('folioView');
const folio = computed(() => folioView.value?.root ?? null);
const zoom = useZoom(scroller, column);

// Two fingers that go apart while somebody draws.
const { on: drawing, pinch } = useInkTools();
pinch.on((by) => {
  zoom.step(by, 'leaf');
  zoom.step(by, 'text');
});

const lift = ref(0);

/** Work and margin are moved together, and scrolled by as much: nothing seems to move but the ribbons. */
async function liftTo(height: number): Promise<void> {
  const by = height - lift.value;
  lift.value = height;
  await nextTick();
  scroller.value?.scrollBy({ top: by, behavior: 'instant' });
}

const narrow = useNarrow();
const inHand = computed(() => props.entries.findIndex(({ id }) => id === (props.now ?? props.focused)));

function go(by: 1 | -1): void {
  const next = props.entries[inHand.value + by];
  if (next) emit('pick', next.id);
}

// What is spoken about is in sight above the sheet.
watch(
  () => narrow.value && props.focused,
  async (id) => {
    if (!id) return;
    await nextTick();
    folio.value?.querySelector(`[data-remarks~="${id}"]`)?.scrollIntoView({ block: 'nearest', behavior: 'smooth' });
  },
);

defineExpose({ folio });
</script>

<template>
  <div ref="scroller" class="scroller">
    <div v-if="narrow" class="head">
      <slot name="above" />
      <slot name="below" />
    </div>
    <div ref="column" class="work" :style="{ paddingTop: narrow ? undefined : `${lift}px` }">
      <FolioTools
        v-model:boxing="boxing"
        :leaves="work.folio.leaves"
        :zoom="zoom"
        :folio="folio"
        :choosing="choosing"
      />
      <InkBar v-if="choosing && drawing" />
      <FolioView
        ref="folioView"
        :work="work"
        :marks="marks"
        :focused="lit ?? focused"
        :target="target"
        :choosing="choosing"
        :boxing="boxing"
        :leaf-width="zoom.leafWidth.value"
        :text-zoom="zoom.textZoom.value"
        @pick="$emit('pick', $event)"
        @choose="$emit('choose', $event)"
      />
      <MarginEdge v-if="narrow" :entries="entries" :folio="folio" :focused="focused" @pick="$emit('pick', $event)" />
    </div>
    <div v-if="!narrow" aria-label="Margin" role="region">
      <slot name="above" />
      <MarginColumn :entries="entries" :folio="folio" :focused="focused" @lift="liftTo">
        <template #default="{ entry }"><slot name="entry" :entry="entry" /></template>
      </MarginColumn>
      <slot name="below" />
    </div>
    <RemarkSheet
      v-if="narrow && entries[inHand]"
      :position="inHand + 1"
      :count="entries.length"
      @go="go"
      @close="$emit('leave')"
    >
      <slot name="entry" :entry="entries[inHand]!" />
    </RemarkSheet>
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
    gap: 0;
    padding: 0 8px 60dvh 12px;
  }
  .work {
    position: relative;
    padding-right: 40px;
  }
  .work :deep([data-remarks]) {
    scroll-margin: 64px 0 60dvh;
  }
}
</style>
