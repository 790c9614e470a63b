<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import { defineAsyncComponent, ref } from 'vue';
import ReplyThread from '../replies/ReplyThread.vue';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import RibbonFrame from '../margin/RibbonFrame.vue';

// Whoever has read a remark answers it.
const ReplyBox = defineAsyncComponent(() => import('../replies/ReplyBox.vue'));

/** A remark as the student gets it: to be heard, read and answered. */
defineProps<{
  remark: Remark;
  submission: string;
  focused: boolean;
  /** Nothing is answered here. */
  preview?: boolean;
}>();
defineEmits<{ focus: [] }>();

const actions = useFeedbackActions();

const speaking = ref(false);
</script>

<template>
  <RibbonFrame :remark="remark" :focused="focused" @focus="$emit('focus')">
    <template #actions>
      <span v-if="remark.recording?.heard?.finishedAt" class="quiet">heard</span>
    </template>
    <p v-if="remark.suggestion !== null && !preview" class="take">
      <v-btn size="x-small" variant="outlined" @click.stop="actions.take(remark, !remark.takenAt)">
        {{ remark.takenAt ? 'Leave my own words' : 'Take these words over' }}
      </v-btn>
      <span v-if="remark.takenAt" class="quiet">taken over</span>
    </p>
    <ReplyThread :replies="remark.replies" />
    <ReplyBox
      v-if="!preview && (focused || speaking)"
      v-model:speaking="speaking"
      :submission="submission"
      :remark="remark.id"
      :send="(reply) => actions.answer(remark, reply)"
    />
  </RibbonFrame>
</template>

<style scoped>
.take {
  display: flex;
  align-items: center;
  gap: 8px;
  margin-top: 6px;
}
.quiet {
  color: var(--quiet);
  font-size: 13px;
}
</style>
