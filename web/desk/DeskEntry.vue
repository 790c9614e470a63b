<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import type { EarlierRemark } from '#contract/submissions';
import { computed } from 'vue';
import EarlierRibbon from '../earlier/EarlierRibbon.vue';
import { useAnchorName } from '../feedback/use-anchor-name.ts';
import RemarkForm from '../remark/RemarkForm.vue';
import { useDesk } from './desk.ts';
import DeskRibbon from './DeskRibbon.vue';
import { BANKING, SPEAKING } from './use-desk-entries.ts';
import { WRITING } from './use-writing.ts';

/** One thing in the margin of the desk: a remark, one of an earlier version, or one that is being spoken or written. */
const props = defineProps<{
  id: string;
  kind: string;
  focused: boolean;
  remark?: Remark | undefined;
  earlier?: EarlierRemark | undefined;
}>();

const desk = useDesk();
const { rubric, writing } = desk;
const anchorName = useAnchorName();
const draft = computed(() => (props.id === WRITING ? writing.draft.value : null));
const quote = computed(() => (draft.value?.anchor.type === 'passage' ? draft.value.anchor.quote.exact : undefined));
const target = computed(() => (props.focused ? desk.target.value?.name : undefined));
</script>

<template>
  <p v-if="id === SPEAKING" class="now" :class="`kind-${kind}`">Listening …</p>
  <p v-else-if="id === BANKING" class="now" :class="`kind-${kind}`">From your bank …</p>
  <section
    v-else-if="draft"
    class="writing"
    :class="`kind-${kind}`"
    :aria-label="`New remark about ${anchorName(draft.anchor)}`"
  >
    <RemarkForm
      :model-value="draft"
      :rubric="rubric"
      :quote="quote"
      @update:model-value="writing.draft.value = $event"
      @save="writing.save"
      @cancel="writing.cancel"
    />
  </section>
  <DeskRibbon v-if="remark" :remark="remark" :focused="focused" />
  <EarlierRibbon
    v-if="earlier"
    :earlier="earlier"
    :focused="focused"
    movable
    :target="target"
    @focus="desk.focused.value = id"
    @here="desk.putHere(earlier)"
    @lost="desk.lose(earlier)"
  />
</template>

<style scoped>
.now {
  color: var(--kind);
  font-weight: 600;
  padding: 6px 10px;
  background: var(--paper);
  border-left: 3px solid var(--kind);
}
.writing {
  padding: 4px 10px 10px;
  background: var(--paper);
  border: 1px solid var(--kind);
  border-radius: 4px;
}
</style>
