<script setup lang="ts">
import { PEAK_FULL_SCALE } from '#core/audio';
import { computed } from 'vue';

/** A recording as it looks: bars up and down from a line, the played part in full colour. Clicking goes there. */
const props = defineProps<{ peaks: readonly number[]; duration: number; position: number }>();
const emit = defineEmits<{ seek: [seconds: number] }>();

const BARS = 72;
const HEIGHT = 30;

const bars = computed(() => {
  const loudest = Math.max(...props.peaks, PEAK_FULL_SCALE / 4);
  return Array.from({ length: BARS }, (_, bar) => {
    const from = Math.floor((bar * props.peaks.length) / BARS);
    const to = Math.max(from + 1, Math.floor(((bar + 1) * props.peaks.length) / BARS));
    const height = Math.max(1.5, (Math.max(...props.peaks.slice(from, to)) / loudest) * HEIGHT);
    return {
      x: bar * 4,
      y: (HEIGHT - height) / 2,
      height,
      played: (bar + 0.5) / BARS <= props.position / props.duration,
    };
  });
});

function seek(event: MouseEvent): void {
  const frame = (event.currentTarget as Element).getBoundingClientRect();
  emit('seek', ((event.clientX - frame.left) / frame.width) * props.duration);
}
</script>

<template>
  <svg class="wave" :viewBox="`0 0 ${BARS * 4} ${HEIGHT}`" preserveAspectRatio="none" aria-hidden="true" @click="seek">
    <rect
      v-for="bar in bars"
      :key="bar.x"
      :x="bar.x"
      :y="bar.y"
      :height="bar.height"
      width="2.4"
      rx="1.2"
      :class="{ played: bar.played }"
    />
  </svg>
</template>

<style scoped>
.wave {
  display: block;
  width: 100%;
  height: 30px;
  cursor: pointer;
}
rect {
  fill: color-mix(in srgb, var(--kind) 60%, var(--paper));
}
.played {
  fill: var(--kind);
}
</style>
