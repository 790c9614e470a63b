<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import type { EarlierRemark } from '#contract/submissions';
import { computed } from 'vue';
import EarlierRibbon from '../earlier/EarlierRibbon.vue';
import { useAnchorName } from '../feedback/use-anchor-name.ts';
import { useDeskMargin } from './desk-margin.ts';
import DeskRibbon from './DeskRibbon.vue';
import RemarkForm from '../remark/RemarkForm.vue';
import { SPEAKING } from './use-desk-entries.ts';
import { WRITING } from './use-writing.ts';

/** One thing in the margin of the desk: a remark, one of an earlier version, or one that is being spoken or written. */
const props = defineProps<{
  id: string;
  kind: string;
  focused: boolean;
  remark?: Remark | undefined;
  earlier?: EarlierRemark | undefined;
}>();

const margin = useDeskMargin();
const anchorName = useAnchorName();
const target = computed(() => (props.focused ? margin.target : undefined));
const draft = computed(() => (props.id === WRITING ? margin.draft : null));
const quote = computed(() => (draft.value?.anchor.type === 'passage' ? draft.value.anchor.quote.exact : undefined));
</script>

<template>
  <p v-if="id === SPEAKING" class="now" :class="`kind-${kind}`">Listening …</p>
  <section
    v-else-if="draft"
    class="writing"
    :class="`kind-${kind}`"
    :aria-label="`New remark about ${anchorName(draft.anchor)}`"
  >
    <RemarkForm
      :model-value="draft"
      :rubric="margin.rubric"
      :quote="quote"
      @update:model-value="margin.setDraft"
      @save="margin.saveDraft"
      @cancel="margin.cancelDraft"
    />
  </section>
  <DeskRibbon
    v-if="remark"
    :remark="remark"
    :focused="focused"
    :target="target"
    :cutting="margin.cutting === id"
    :mending="margin.mending === id"
    :returned="margin.returned"
    :submission="margin.submission"
    :student="margin.student"
    :rubric="margin.rubric"
    @update:cutting="margin.cut(remark, $event)"
    @update:mending="margin.openTranscript(remark, $event)"
    @focus="margin.focus(id)"
    @kind="margin.setKind(remark, $event)"
    @again="margin.speakAgain(remark)"
    @aside="margin.putAside(remark)"
    @mend="margin.mend(remark, $event)"
    @amend="margin.amend(remark, $event)"
  />
  <EarlierRibbon
    v-if="earlier"
    :earlier="earlier"
    :focused="focused"
    movable
    :target="target?.name"
    @focus="margin.focus(id)"
    @here="margin.putHere(earlier)"
    @lost="margin.lose(earlier)"
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
