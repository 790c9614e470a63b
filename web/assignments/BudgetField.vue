<script setup lang="ts">
import { setAssignment } from '#contract/assignments';
import { ref } from 'vue';
import { call, sentenceOf } from '../session/api.ts';
import NumberField from '../theme/NumberField.vue';

/** How long a spoken remark should take in this assignment. It is a wish and never cuts. */
const props = defineProps<{ assignment: string; budget: number | null }>();

const USUAL_SECONDS = 30;
const LEAST = 5;
const MOST = 1800;

const budget = ref(props.budget);
const state = ref<string>();

async function set(next: number | null): Promise<void> {
  const before = budget.value;
  if (next === before) return;
  budget.value = next;
  try {
    ({ budget: budget.value } = await call(setAssignment, {
      params: { assignment: props.assignment },
      body: { budget: next },
    }));
    state.value = 'Saved.';
  } catch (error) {
    budget.value = before;
    state.value = sentenceOf(error);
  }
}
</script>

<template>
  <div class="budget">
    <v-checkbox
      label="Aim for spoken remarks of about"
      :model-value="budget !== null"
      @update:model-value="set($event ? USUAL_SECONDS : null)"
    />
    <NumberField
      class="seconds"
      aria-label="Seconds for a spoken remark"
      suffix="s"
      :min="LEAST"
      :max="MOST"
      :disabled="budget === null"
      :model-value="budget ?? USUAL_SECONDS"
      @update:model-value="set"
    />
    <span>Nothing is ever cut off.</span>
    <span role="status">{{ state }}</span>
  </div>
</template>

<style scoped>
.budget {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  margin-top: 6px;
  color: var(--quiet);
}
.seconds {
  flex: 0 0 110px;
}
</style>
