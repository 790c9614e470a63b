<script setup lang="ts">
import { applySettled, type ComparedWork, type Moderation, type Unapplied } from '#contract/moderation';
import { readFeedback, readWork } from '#contract/submissions';
import { ref } from 'vue';
import { call } from '../session/api.ts';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
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
/** What stands where the work does not have what was settled. */
const STANDS: Record<Unapplied, string> = {
  returned: 'The work has been returned with other levels or a set total, and that grade stands.',
  total: 'A total is set for this work, and it stands instead of the settled levels.',
  levels: 'The work has other levels now, and they stand.',
  replaced: 'There is a newer version or rubric. The settled levels are kept here only.',
};
const APPLY = {
  returned: 'Recall and apply the settled levels',
  total: 'Remove the total and apply the settled levels',
  levels: 'Apply the settled levels',
};
const { busy, problem, attempt } = useDeed();
const told = ref<string>();

function settled(): void {
  told.value = 'Settled.';
  emit('settled');
}

const apply = () =>
  attempt(async () => {
    await call(applySettled, { params: { moderation: props.moderation.id, work: props.compared.work } });
    told.value = 'The work has the settled levels now. It can be returned.';
    emit('settled');
  });
</script>

<template>
  <div class="panel">
    <SettleForm :key="compared.settled?.at ?? ''" :moderation="moderation" :compared="compared" @settled="settled" />
    <p v-if="told" role="status">{{ told }}</p>
    <p v-if="compared.settled" class="fine">
      Settled by {{ compared.settled.by ?? 'somebody' }}, {{ dayAndTime(compared.settled.at) }}.
      {{ compared.unapplied ? STANDS[compared.unapplied] : 'The work has these levels.' }}
    </p>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
    <v-btn
      v-if="compared.unapplied && compared.unapplied !== 'replaced'"
      class="apply"
      variant="outlined"
      :loading="busy"
      @click="apply"
      >{{ APPLY[compared.unapplied] }}</v-btn
    >
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
.apply {
  justify-self: start;
}
.sides {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(340px, 100%), 1fr));
  gap: 24px;
  align-items: start;
  margin-top: 8px;
}
</style>
