<script setup lang="ts">
import type { MarginKey } from '#contract/margin-key';
import type { Work } from '#contract/submissions';
import { useFeedback } from '../../feedback/feedback-store.ts';
import MarginKeyForm from '../../margin/MarginKeyForm.vue';
import SidePanel from '../../shell/SidePanel.vue';

/** The margin key of the course, changed while one marks. */
defineProps<{ work: Work }>();
const emit = defineEmits<{ close: [] }>();

const store = useFeedback();

function done(key: MarginKey): void {
  store.setMarginKey(key);
  emit('close');
}
</script>

<template>
  <SidePanel title="Margin key" @close="$emit('close')">
    <p class="fine">The kinds of remark in {{ work.assignment.course }}, for all its teachers and students.</p>
    <MarginKeyForm :course="work.course" :marginal-key="work.marginKey" @done="done" @leave="$emit('close')" />
  </SidePanel>
</template>
