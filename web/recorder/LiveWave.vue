<script setup lang="ts">
import { clock, levelDbfs } from '#core/audio';
import { useRafFn } from '@vueuse/core';
import { computed, onMounted, ref, useTemplateRef } from 'vue';
import { useRecorder } from './use-recorder.ts';

/** What is being spoken: its waveform, its level, its time against the budget. */
const props = defineProps<{ budget: number | null }>();

const BAR_WIDTH = 4;
const LOUDEST_DBFS = -6;
const QUIETEST_DBFS = -54;
const READINGS_PER_FIGURE = 6;

const recorder = useRecorder();
const canvas = useTemplateRef('canvas');
const seconds = ref(0);
const level = ref(QUIETEST_DBFS);
const levels: number[] = [];
const samples = new Float32Array(2048);
const over = computed(() => props.budget !== null && seconds.value > props.budget);
let color = '';

onMounted(() => {
  const element = canvas.value!;
  color = getComputedStyle(element).color;
  element.width = element.clientWidth * devicePixelRatio;
  element.height = element.clientHeight * devicePixelRatio;
});

useRafFn(
  () => {
    seconds.value = recorder.seconds();
    if (recorder.status.value === 'paused') return;
    recorder.read(samples);
    levels.push(levelDbfs(samples));
    if (levels.length % READINGS_PER_FIGURE === 0) level.value = Math.round(levels.at(-1)!);
    draw();
  },
  { fpsLimit: 20 },
);

function draw(): void {
  const element = canvas.value;
  const context = element?.getContext('2d');
  if (!element || !context) return;
  context.setTransform(devicePixelRatio, 0, 0, devicePixelRatio, 0, 0);
  const { width, height } = { width: element.width / devicePixelRatio, height: element.height / devicePixelRatio };
  context.clearRect(0, 0, width, height);
  context.fillStyle = color;
  levels.slice(-Math.floor(width / BAR_WIDTH)).forEach((one, index) => {
    const loudness = Math.min(1, Math.max(0, (one - QUIETEST_DBFS) / (LOUDEST_DBFS - QUIETEST_DBFS)));
    const bar = Math.max(2, loudness * height);
    context.fillRect(index * BAR_WIDTH, (height - bar) / 2, BAR_WIDTH - 1.5, bar);
  });
}
</script>

<template>
  <canvas ref="canvas" aria-hidden="true" />
  <span class="level figures" aria-hidden="true">{{ level }} dBFS</span>
  <span class="figures time" :class="{ over }" role="timer"
    >{{ clock(seconds) }} <small v-if="budget !== null">of {{ clock(budget) }}</small></span
  >
</template>

<style scoped>
canvas {
  flex: 1;
  min-width: 0;
  height: 44px;
  color: var(--kind);
}
.level {
  width: 5em;
  color: var(--quiet);
  font-size: 13px;
  text-align: right;
  white-space: nowrap;
}
.time {
  font-size: 18px;
  white-space: nowrap;
}
.time small {
  color: var(--quiet);
  font-size: 13px;
}
.over {
  color: rgb(var(--v-theme-error));
}
</style>
