<script setup lang="ts">
import { setAssignment } from '#contract/assignments';
import { ref } from 'vue';
import { call, sentenceOf } from '../session/api.ts';

/** How long a spoken remark should take in this assignment. It is a wish and never cuts. */
const props = defineProps<{ assignment: string; budget: number | null }>();

const USUAL_SECONDS = 30;

const budget = ref(props.budget);
const state = ref<string>();

async function set(next: number | null): Promise<void> {
  const before = budget.value;
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

function type(event: Event): void {
  const input = event.target as HTMLInputElement;
  const seconds = Math.round(Number(input.value));
  if (seconds >= 5 && seconds <= 1800) void set(seconds);
  else {
    state.value = 'From 5 seconds to half an hour (1800 seconds).';
    input.value = String(budget.value);
  }
}
</script>

<template>
  <p class="budget">
    <label>
      <input type="checkbox" :checked="budget !== null" @change="set(budget === null ? USUAL_SECONDS : null)" />
      A spoken remark should take about
    </label>
    <input
      type="number"
      class="figures"
      min="5"
      max="1800"
      aria-label="Seconds for a spoken remark"
      :disabled="budget === null"
      :value="budget ?? USUAL_SECONDS"
      @change="type"
    />
    seconds. Nothing is ever cut off.
    <span role="status">{{ state }}</span>
  </p>
</template>

<style scoped>
.budget {
  margin-top: 6px;
  color: var(--quiet);
}
input[type='number'] {
  width: 4.6em;
  padding: 1px 4px;
  border: 1px solid var(--quiet);
  border-radius: 3px;
}
input[type='checkbox'] {
  accent-color: var(--ink);
}
</style>
