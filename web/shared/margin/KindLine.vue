<script setup lang="ts">
import type { Kind } from '#contract/remarks';

/** The line pattern of a kind, as it stands under the passage. */
defineProps<{ kind: Kind }>();

const PATHS: Record<Kind, { d: string; dashes?: string }> = {
  strength: { d: 'M0 3 H40' },
  question: { d: 'M1 3 H40', dashes: '0.1 5' },
  repair: { d: 'M0 3 q2.5 -4 5 0 t5 0 t5 0 t5 0 t5 0 t5 0 t5 0 t5 0' },
  next: { d: 'M0 1.5 H40 M0 4.5 H40' },
};
</script>

<template>
  <svg class="line" viewBox="0 0 40 6" width="40" height="6" aria-hidden="true">
    <path :d="PATHS[kind].d" :stroke-dasharray="PATHS[kind].dashes" />
  </svg>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--kind);
  stroke-width: 1.8;
  stroke-linecap: round;
}
</style>
