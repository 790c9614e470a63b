<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import { dayAndTime } from '../wording/format.ts';

/** Whether more is to be said about a remark; either side can say so. */
defineProps<{
  remark: Remark;
  /** What one says by pressing it, e.g. "Got it". */
  says: string;
  /** The key for it. */
  shown?: string;
}>();

const actions = useFeedbackActions();
</script>

<template>
  <p class="end">
    <template v-if="remark.settled">
      <span class="fine">Settled by {{ remark.settled.by.name }}, {{ dayAndTime(remark.settled.at) }}</span>
      <v-btn size="x-small" @click.stop="actions.settle(remark, false)">Open it again</v-btn>
    </template>
    <v-btn v-else size="x-small" variant="outlined" @click.stop="actions.settle(remark, true)"
      >{{ says }} <kbd v-if="shown" aria-hidden="true">{{ shown }}</kbd></v-btn
    >
  </p>
</template>

<style scoped>
.end {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 8px;
  align-items: center;
  margin-top: 8px;
}
kbd {
  margin-left: 4px;
  color: var(--quiet);
  font: inherit;
}
@media (hover: none) {
  kbd {
    display: none;
  }
}
</style>
