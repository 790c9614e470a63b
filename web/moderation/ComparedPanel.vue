<script setup lang="ts">
import type { ComparedWork, Moderation } from '#contract/moderation';
import { readFeedback, readWork } from '#contract/submissions';
import { ref } from 'vue';
import { call } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { useLoaded } from '../shell/use-loaded.ts';
import { dayAndTime } from '../wording/format.ts';
import MarkerRemarks from './MarkerRemarks.vue';
import SettleForm from './SettleForm.vue';

/** One work, as two markers have scored it and what they said, side by side. */
const props = defineProps<{ moderation: Moderation; compared: ComparedWork }>();
const emit = defineEmits<{ settled: [] }>();

const ask = async (submission: string) => {
  const params = { submission };
  const [work, feedback] = await Promise.all([call(readWork, { params }), call(readFeedback, { params })]);
  return { work, feedback };
};
const { value, error, load } = useLoaded(
  async () => ({ first: await ask(props.compared.work), second: await ask(props.compared.second) }),
  () => props.compared.work,
);
const told = ref<string>();

function settled(given: boolean): void {
  told.value = given ? 'Settled. The work has these scores now.' : 'Settled, and kept here.';
  emit('settled');
}
</script>

<template>
  <div class="panel">
    <SettleForm :key="compared.settled?.at ?? ''" :moderation="moderation" :compared="compared" @settled="settled" />
    <p v-if="told" role="status">{{ told }}</p>
    <p v-if="compared.settled" class="fine">
      Settled by {{ compared.settled.by ?? 'somebody' }}, {{ dayAndTime(compared.settled.at) }}.
    </p>
    <StateNote v-if="!value" :busy="!error" :error="error" @retry="load" />
    <div v-else class="sides">
      <MarkerRemarks :marker="compared.firstMarkers.join(', ') || 'First marker'" v-bind="value.first" />
      <MarkerRemarks :marker="moderation.marker" v-bind="value.second" />
    </div>
  </div>
</template>

<style scoped>
.panel {
  display: grid;
  gap: 12px;
  padding: 12px 0 20px;
}
.sides {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: 24px;
  align-items: start;
  margin-top: 8px;
}
</style>
