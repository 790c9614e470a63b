<script setup lang="ts">
import type { Remark } from '#contract/remarks';
import { defineAsyncComponent, ref } from 'vue';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';

const ReplyBox = defineAsyncComponent(() => import('../replies/ReplyBox.vue'));

/** Leads from a criterion to what was said about it; where that is nothing, the student asks. */
defineProps<{
  submission: string;
  criterion: { id: string; title: string };
  /** What was said about it. */
  remarks: readonly Remark[];
  /** Nothing is asked here. */
  preview?: boolean;
}>();
defineEmits<{ go: [remark: string] }>();

const actions = useFeedbackActions();
const asking = ref(false);
const remark = crypto.randomUUID();
</script>

<template>
  <div class="about">
    <v-btn
      v-if="remarks[0]"
      size="x-small"
      variant="outlined"
      :aria-label="`See what was said about ${criterion.title}`"
      @click="$emit('go', remarks[0].id)"
      >See what was said</v-btn
    >
    <template v-else-if="!preview">
      <v-btn
        v-if="!asking"
        size="x-small"
        variant="outlined"
        :aria-label="`Ask about this: ${criterion.title}`"
        @click="asking = true"
        >Ask about this</v-btn
      >
      <ReplyBox
        v-else
        :submission="submission"
        :remark="remark"
        :criterion="criterion.id"
        :ask="`Ask about ${criterion.title}`"
        :send="(reply) => actions.ask(remark, criterion.id, reply)"
      />
    </template>
  </div>
</template>

<style scoped>
.about {
  margin-top: 6px;
}
</style>
