<script setup lang="ts">
import { wordChanges } from '#core/anchor';
import type { Remark } from '#contract/remarks';
import { computed } from 'vue';

/** What a suggestion changes, word by word: struck words and words put in. */
const props = defineProps<{ remark: Remark }>();

const before = computed(() => (props.remark.anchor.type === 'passage' ? props.remark.anchor.quote.exact : ''));
const changes = computed(() => wordChanges(before.value, props.remark.suggestion ?? ''));
</script>

<template>
  <p class="suggestion">
    <span class="visually-hidden">Suggestion: </span>
    <template v-for="(change, index) in changes" :key="index">
      <del v-if="change.type === 'struck'">{{ change.text }}</del>
      <ins v-else-if="change.type === 'new'">{{ change.text }}</ins>
      <template v-else>{{ change.text }}</template>
    </template>
  </p>
</template>

<style scoped>
.suggestion {
  margin-top: 4px;
  font-family: var(--serif);
  line-height: 1.5;
  overflow-wrap: anywhere;
  white-space: pre-wrap;
}
del {
  color: var(--quiet);
}
ins {
  margin-left: 2px;
  font-weight: 600;
  text-decoration: underline double var(--kind);
}
</style>
