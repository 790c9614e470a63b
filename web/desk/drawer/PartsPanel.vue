<script setup lang="ts">
import type { Feedback, Work } from '#contract/submissions';
import { computed, ref } from 'vue';
import { useFeedbackActions } from '../../feedback/use-feedback-actions.ts';
import SidePanel from '../../shell/SidePanel.vue';
import { counted, percent } from '../../wording/format.ts';
import { useDesk } from '../desk.ts';
import { makeParts } from './make-parts.ts';
import PartsList from './PartsList.vue';
import type { Part } from './use-parts.ts';

/** After a talk-through: it stays one, or each of its passages becomes a remark. */
const props = defineProps<{ work: Work; feedback: Feedback }>();
const emit = defineEmits<{ close: [] }>();

const desk = useDesk();
const actions = useFeedbackActions();
const working = ref<number>();
const problem = ref<string>();
const remark = computed(() => props.feedback.remarks.find(({ id, talk }) => talk && id === desk.apart.value));

async function make(parts: readonly Part[]): Promise<void> {
  const talked = remark.value;
  if (!talked || working.value !== undefined) return;
  working.value = 0;
  problem.value = undefined;
  const { work } = props;
  try {
    const made = await makeParts(actions, {
      work,
      remark: talked,
      parts,
      onProgress: (share) => (working.value = share),
    });
    emit('close');
    desk.notice.value = {
      text: `${counted(made.length, 'remark')} made. The talk-through was put aside.`,
      undo: () => backTo(made),
      way: 'Make it one again',
    };
    desk.goTo(made[0]!);
  } catch {
    problem.value = 'The remarks could not be made. The talk-through is as it was; check the network and try again.';
  } finally {
    working.value = undefined;
  }

  async function backTo(made: readonly string[]): Promise<void> {
    for (const id of made) await actions.putAside({ id });
    await actions.bringBack({ id: talked!.id });
    desk.goTo(talked!.id);
  }
}
</script>

<template>
  <SidePanel title="One, or several remarks" @close="$emit('close')">
    <p v-if="!remark" class="quiet">Go to a talk-through, and make several remarks of it there.</p>
    <p v-else-if="working !== undefined" role="status">Making the remarks … {{ percent(working) }}</p>
    <PartsList v-else :key="remark.id" :remark="remark" :work="work" @make="make" @close="$emit('close')" />
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  </SidePanel>
</template>
