<script setup lang="ts">
import { pathOf, type DrawnStroke, LABEL_HEIGHT } from '#core/ink';
import { grown } from '#core/talk';
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
  /** How much of each is drawn: seconds since its beginning; all of it where this is not told. */
  until?: number | undefined;
  /** Whether it can be pressed. */
  pressable?: boolean;
}>();
defineEmits<{ pick: [] }>();

interface Drawn {
  stroke: DrawnStroke;
  d: string;
  filled: boolean;
}

const placed = computed(() => props.ink.flatMap((stroke) => props.ground.draw(stroke, props.start)));
const asPaths = (strokes: readonly DrawnStroke[]): Drawn[] => strokes.map((stroke) => ({ stroke, ...pathOf(stroke) }));
/** Kept while only a part of it is shown: outlines take time. */
const whole = computed(() => asPaths(placed.value));
const drawn = computed(() => {
  const { until } = props;
  if (until === undefined) return whole.value;
  return until < 0 ? [] : asPaths(placed.value.flatMap((stroke) => grown(stroke, until) ?? []));
});
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
      <path v-if="pressable" class="touch" :d="d" @click="$emit('pick')" />
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
path.touch {
  stroke: transparent;
  stroke-width: 14px;
  cursor: pointer;
  pointer-events: auto;
}
text {
  font-family: var(--sans);
  font-weight: 600;
}
.focused path:not(.pale) {
  filter: drop-shadow(0 0 2px color-mix(in srgb, var(--kind) 55%, transparent));
}
</style>
