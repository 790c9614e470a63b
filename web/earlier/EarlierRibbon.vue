<script setup lang="ts">
import type { EarlierRemark } from '#contract/submissions';
import { computed, ref } from 'vue';
import RibbonFrame from '../margin/RibbonFrame.vue';
import ReplyThread from '../replies/ReplyThread.vue';
import Uptake from './Uptake.vue';

/** A remark on an earlier version, at its place in this one. */
const props = defineProps<{
  earlier: EarlierRemark;
  focused: boolean;
  /** Whether it can be put elsewhere. */
  movable?: boolean;
  /** What is selected in the work, in words, so that it can be put there. */
  target?: string | undefined;
}>();
defineEmits<{ focus: []; here: []; lost: [] }>();

const STATUS = { same: 'unchanged', moved: 'moved', changed: 'changed', lost: 'not found' } as const;

const open = ref(false);
const before = computed(() => quoteOf(props.earlier.remark.anchor));
const after = computed(() => props.earlier.anchor && quoteOf(props.earlier.anchor));
const uptake = computed(() => props.earlier.status === 'changed' && before.value !== undefined && !!after.value);

function quoteOf(anchor: EarlierRemark['remark']['anchor']): string | undefined {
  return anchor.type === 'passage' ? anchor.quote.exact : undefined;
}
</script>

<template>
  <RibbonFrame class="earlier" :remark="earlier.remark" :focused="focused" @focus="$emit('focus')">
    <template #actions>
      <span class="version"
        >version {{ earlier.version }}, {{ earlier.placed ? 'put here by hand' : STATUS[earlier.status] }}</span
      >
    </template>
    <template v-if="uptake">
      <button type="button" class="more" :aria-expanded="open" @click.stop="open = !open">
        {{ open ? 'Hide what changed' : 'Show what changed' }}
      </button>
      <Uptake v-if="open" :before="before!" :after="after!" />
    </template>
    <p v-if="earlier.remark.dealtAt" class="dealt">Dealt with in the next version, says its student.</p>
    <ReplyThread :replies="earlier.remark.replies" />
    <div v-if="movable && focused" class="row">
      <v-btn v-if="target" size="x-small" variant="outlined" @mousedown.prevent @click.stop="$emit('here')"
        >Put it at {{ target }}</v-btn
      >
      <v-btn size="x-small" variant="outlined" @mousedown.prevent @click.stop="$emit('lost')"
        >It does not belong here</v-btn
      >
    </div>
  </RibbonFrame>
</template>

<style scoped>
.earlier {
  border-style: dashed;
}
.version {
  color: var(--quiet);
  font-size: 13px;
}
.more {
  margin-top: 4px;
  color: var(--quiet);
  font-size: 13px;
  text-decoration: underline dotted;
}
.dealt {
  margin-top: 6px;
  font-weight: 600;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 8px;
}
.row :deep(.v-btn__content) {
  max-width: 230px;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
