<script setup lang="ts">
import { pathOf, type DrawnStroke, LABEL_HEIGHT } from '#core/ink';
import type { Ink } from '#contract/ink';
import { computed } from 'vue';
import type { Ground } from './ground.ts';

/** The strokes of one remark. */
const props = defineProps<{
  ink: Ink;
  ground: Ground;
  /** Of the passage that they hang on. */
  start: number;
  focused?: boolean;
}>();

interface Drawn {
  stroke: DrawnStroke;
  d: string;
  filled: boolean;
}

const drawn = computed(() =>
  props.ink
    .flatMap((stroke) => props.ground.draw(stroke, props.start))
    .map((stroke): Drawn => ({ stroke, ...pathOf(stroke) })),
);
</script>

<template>
  <g :class="{ focused }">
    <template v-for="({ stroke, d, filled }, index) in drawn" :key="index">
      <text
        v-if="stroke.tool === 'label'"
        :class="`kind-${stroke.colour}`"
        :x="stroke.points[0]!.x"
        :y="stroke.points[0]!.y"
        :font-size="stroke.width * LABEL_HEIGHT"
      >
        {{ stroke.text }}
      </text>
      <path
        v-else
        :d="d"
        :class="[`kind-${stroke.colour}`, { filled, pale: stroke.tool === 'highlighter' }]"
        :stroke-width="filled ? undefined : stroke.width"
      />
    </template>
  </g>
</template>

<style scoped>
path {
  fill: none;
  stroke: var(--kind);
  stroke-linecap: round;
  stroke-linejoin: round;
}
path.filled,
text {
  fill: var(--kind);
  stroke: none;
}
path.pale {
  opacity: 0.32;
}
text {
  font-family: var(--sans);
  font-weight: 600;
}
.focused path:not(.pale) {
  filter: drop-shadow(0 0 2px color-mix(in srgb, var(--kind) 55%, transparent));
}
</style>
