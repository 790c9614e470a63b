<script setup lang="ts">
import type { Feedback } from '#contract/submissions';
import { computed } from 'vue';
import KeepForm from '../../bank/KeepForm.vue';
import { useDesk } from '../desk.ts';
import SidePanel from '../../shell/SidePanel.vue';

/** Puts the remark at hand into the bank. */
const props = defineProps<{ feedback: Feedback }>();
const emit = defineEmits<{ close: [] }>();

const desk = useDesk();
const remark = computed(() => props.feedback.remarks.find(({ id }) => id === desk.focused.value));

function kept(name: string): void {
  desk.notice.value = { text: `“${name}” is in your bank. A drops it on the next passage that needs it.` };
  emit('close');
}
</script>

<template>
  <SidePanel title="Keep in the bank" @close="$emit('close')">
    <p v-if="!remark" class="quiet">Go to a remark that you will need again, then press K.</p>
    <KeepForm
      v-else
      :key="remark.id"
      :remark="remark"
      :rubric="desk.rubric.value"
      :names="desk.classNames.value"
      @kept="kept"
      @cancel="$emit('close')"
    />
  </SidePanel>
</template>
