<script setup lang="ts">
import { findAlike } from '#contract/bank';
import type { Remark } from '#contract/remarks';
import { computed, ref, watch } from 'vue';
import { call } from '../session/api.ts';

/** Offers quietly to keep what was said several times already. */
const props = defineProps<{ remark: Remark }>();
defineEmits<{ keep: [] }>();

/** So many times, this one included, and it is worth keeping. */
const OFTEN = 3;
/** Fewer words are said again and again by everybody. */
const LEAST_WORDS = 5;

const said = ref(0);
const text = computed(() => props.remark.recording?.transcript?.text ?? props.remark.text);

watch(
  () => [props.remark.id, text.value] as const,
  async ([id, asked]) => {
    said.value = 0;
    if (asked.split(/\s+/u).length < LEAST_WORDS) return;
    const language = props.remark.recording?.transcript?.language ?? 'en';
    const found = await call(findAlike, { body: { text: asked, language } }).catch(() => undefined);
    if (found && id === props.remark.id && found.banked.length === 0) said.value = found.said;
  },
  { immediate: true },
);
</script>

<template>
  <p v-if="said >= OFTEN" class="before" role="status">
    You have said nearly this {{ said - 1 }} times before.
    <button type="button" @click.stop="$emit('keep')">Keep it in your bank</button>
  </p>
</template>

<style scoped>
.before {
  margin-top: 6px;
  color: var(--quiet);
  font-size: 13px;
}
button {
  color: var(--ink);
  text-decoration: underline dotted;
}
</style>
