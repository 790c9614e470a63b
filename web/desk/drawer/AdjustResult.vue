<script setup lang="ts">
import { formatHundredths, parseHundredths, pointsProblem, type Adjustment } from '#core/grading';
import { computed, ref, watch } from 'vue';

/** Extra points, or another total with its reason. Where nothing is scored on its own, the total is the score. */
const props = defineProps<{
  adjustment: Adjustment | null;
  /** The work is scored as a whole. */
  whole: boolean;
  /** What it is out of; null where nothing gives points. */
  possible: number | null;
}>();
const emit = defineEmits<{ adjust: [adjustment: Adjustment | null] }>();

const shown = (value: number | null | undefined): string =>
  value === null || value === undefined ? '' : formatHundredths(value);
const extra = ref('');
const total = ref('');
const reason = ref('');
watch(
  () => props.adjustment,
  (now, before) => {
    // What is being typed stays.
    if (extra.value === shown(before?.extra)) extra.value = shown(now?.extra);
    if (total.value === shown(before?.total)) total.value = shown(now?.total);
    if (reason.value === (before?.reason ?? '')) reason.value = now?.reason ?? '';
  },
  { immediate: true },
);

const MOST = 100_000;
const read = (text: string): number | null | undefined => (text.trim() === '' ? null : parseHundredths(text));
const wrong = computed(() => {
  const [more, all] = [read(extra.value), read(total.value)];
  if (more === undefined || (more !== null && Math.abs(more) > MOST))
    return 'Extra points are a number like 1.5 or -1, with at most two decimals.';
  if (all === undefined || (all !== null && (all < 0 || all > MOST)))
    return 'A total is a number from 0 to 1000, with at most two decimals.';
  const much = all !== null ? pointsProblem(all, props.possible) : undefined;
  if (much !== undefined) return much;
  if (all !== null && !props.whole && reason.value.trim() === '') return 'Say why the total is another one.';
  return undefined;
});
const changed = computed(
  () =>
    extra.value.trim() !== shown(props.adjustment?.extra) ||
    total.value.trim() !== shown(props.adjustment?.total) ||
    reason.value.trim() !== (props.adjustment?.reason ?? ''),
);

function keep(): void {
  const [more, all] = [read(extra.value) ?? null, read(total.value) ?? null];
  emit('adjust', more === null && all === null ? null : { extra: more, total: all, reason: reason.value.trim() });
}

function takeAway(): void {
  extra.value = total.value = reason.value = '';
  emit('adjust', null);
}
</script>

<template>
  <form class="adjust" @submit.prevent="!wrong && keep()">
    <v-text-field
      v-model="total"
      density="compact"
      hide-details
      inputmode="decimal"
      :label="whole ? 'Points for the work' : 'Total in its place'"
    />
    <v-text-field v-model="extra" density="compact" hide-details inputmode="decimal" label="Extra points" />
    <v-text-field
      v-if="!whole || reason"
      v-model="reason"
      density="compact"
      hide-details
      maxlength="500"
      label="Why; the student reads it"
    />
    <p v-if="changed && wrong" class="refused" role="alert">{{ wrong }}</p>
    <p class="buttons">
      <v-btn v-if="adjustment" size="x-small" variant="text" @click="takeAway">Take it away</v-btn>
      <v-btn type="submit" size="x-small" variant="outlined" :disabled="!changed || wrong !== undefined">Set</v-btn>
    </p>
  </form>
</template>

<style scoped>
.adjust {
  display: grid;
  gap: 8px;
  margin: 8px 0 4px;
}
.refused {
  font-size: 13px;
}
.buttons {
  display: flex;
  justify-content: flex-end;
  gap: 8px;
}
</style>
