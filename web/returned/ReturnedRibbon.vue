<script setup lang="ts">
import { playedShare } from '#core/audio';
import type { Remark } from '#contract/remarks';
import { computed, defineAsyncComponent, ref } from 'vue';
import ReplyThread from '../replies/ReplyThread.vue';
import ThreadEnd from '../replies/ThreadEnd.vue';
import { useFeedbackActions } from '../feedback/use-feedback-actions.ts';
import RibbonFrame from '../margin/RibbonFrame.vue';
import { percent } from '../wording/format.ts';

// Whoever has read a remark answers it.
const ReplyBox = defineAsyncComponent(() => import('../replies/ReplyBox.vue'));

/** A remark as the student gets it: to be heard, read and answered. */
const props = defineProps<{
  remark: Remark;
  submission: string;
  focused: boolean;
  /** Nothing is answered here. */
  preview?: boolean;
}>();
defineEmits<{ focus: [] }>();

const actions = useFeedbackActions();

const MEETING = {
  label: 'Ask for a meeting',
  text: 'I would like to talk about this with you. When could we meet?',
};

const speaking = ref(false);
/** The same that its teacher sees. */
const heardWords = computed(() => {
  const { heard, sound } = props.remark.recording!;
  return heard!.finishedAt ? 'heard' : `${percent(playedShare(heard!.played, sound.duration))} heard`;
});
</script>

<template>
  <RibbonFrame :remark="remark" :focused="focused" @focus="$emit('focus')">
    <template #actions>
      <span v-if="remark.recording?.heard" class="fine">{{ heardWords }}</span>
    </template>
    <p v-if="remark.suggestion !== null && !preview" class="take">
      <v-btn size="x-small" variant="outlined" @click.stop="actions.take(remark, !remark.takenAt)">
        {{ remark.takenAt ? 'Leave my own words' : 'Take these words over' }}
      </v-btn>
      <span v-if="remark.takenAt" class="fine">taken over</span>
    </p>
    <ReplyThread :replies="remark.replies" />
    <ThreadEnd v-if="!preview && (focused || remark.settled)" :remark="remark" says="Got it" shown="G" />
    <ReplyBox
      v-if="!preview && (focused || speaking)"
      v-model:speaking="speaking"
      :submission="submission"
      :remark="remark.id"
      :opening="MEETING"
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
</style>
