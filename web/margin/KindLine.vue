<script setup lang="ts">
import type { KeyLine } from '#core/margin';
import { useMarginKey } from '../feedback/margin-key.ts';

/** The line pattern of a kind, as it stands under the passage. */
const props = defineProps<{ kind: string; line?: KeyLine }>();

const margin = useMarginKey();

const PATHS: Record<KeyLine, { d: string; dashes?: string }> = {
  solid: { d: 'M0 3 H40' },
  dotted: { d: 'M1 3 H40', dashes: '0.1 5' },
  wavy: { d: 'M0 3 q2.5 -4 5 0 t5 0 t5 0 t5 0 t5 0 t5 0 t5 0 t5 0' },
  double: { d: 'M0 1.5 H40 M0 4.5 H40' },
  dashed: { d: 'M0 3 H40', dashes: '7 4' },
};
const pattern = (): (typeof PATHS)[KeyLine] => PATHS[props.line ?? margin.entry(props.kind).line];
</script>

<template>
  <svg class="line" viewBox="0 0 40 6" width="40" height="6" aria-hidden="true">
    <path :d="pattern().d" :stroke-dasharray="pattern().dashes" />
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
