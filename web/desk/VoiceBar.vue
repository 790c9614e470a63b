<script setup lang="ts">
import { clock, levelDbfs } from '#core/audio';
import type { Kind } from '#contract/remarks';
import { mdiMicrophone, mdiStop } from '@mdi/js';
import { useRafFn } from '@vueuse/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useRecorder } from '../recorder/use-recorder.ts';
import { KINDS } from '../shared/kinds.ts';
import type { Notice } from './notice.ts';

/** Along the bottom of the desk: record, live waveform, time against the budget, microphone. */
const props = defineProps<{ target: string; kind: Kind; locked: boolean; notice: Notice | undefined }>();
const emit = defineEmits<{ press: []; kind: [kind: Kind]; undo: [] }>();

/** Common practice; it never cuts. */
const BUDGET_SECONDS = 30;
const BAR_WIDTH = 4;
const LOUDEST_DBFS = -6;
const QUIETEST_DBFS = -54;

const recorder = useRecorder();
const canvas = useTemplateRef('canvas');
const seconds = ref(0);
const levels: number[] = [];
const samples = new Float32Array(2048);
const over = computed(() => seconds.value > BUDGET_SECONDS);

const { pause, resume } = useRafFn(
  () => {
    seconds.value = (performance.now() - recorder.begunAt.value) / 1000;
    recorder.read(samples);
    levels.push(levelDbfs(samples));
    draw();
  },
  { immediate: false, fpsLimit: 20 },
);

watch(recorder.speaking, (speaking) => {
  if (!speaking) return pause();
  levels.length = 0;
  seconds.value = 0;
  resume();
});

function draw(): void {
  const element = canvas.value;
  const context = element?.getContext('2d');
  if (!element || !context) return;
  element.width = element.clientWidth * devicePixelRatio;
  element.height = element.clientHeight * devicePixelRatio;
  context.scale(devicePixelRatio, devicePixelRatio);
  context.fillStyle = getComputedStyle(element).color;
  const { clientWidth: width, clientHeight: height } = element;
  levels.slice(-Math.floor(width / BAR_WIDTH)).forEach((level, index) => {
    const loudness = Math.min(1, Math.max(0, (level - QUIETEST_DBFS) / (LOUDEST_DBFS - QUIETEST_DBFS)));
    const bar = Math.max(2, loudness * height);
    context.fillRect(index * BAR_WIDTH, (height - bar) / 2, BAR_WIDTH - 1.5, bar);
  });
}

const hint = computed(() => {
  if (props.locked) return 'This work is with its student. Take it back to change what you said.';
  if (recorder.status.value === 'opening') return 'Opening the microphone. Your browser may ask you to allow it.';
  return props.target;
});
</script>

<template>
  <footer class="bar" :class="`kind-${kind}`" aria-label="Voice bar">
    <v-btn
      class="record"
      rounded="circle"
      :class="{ speaking: recorder.speaking.value }"
      :icon="recorder.speaking.value ? mdiStop : mdiMicrophone"
      size="48"
      variant="flat"
      :disabled="locked"
      :aria-label="recorder.speaking.value ? 'Stop recording' : 'Record a remark'"
      :aria-pressed="recorder.speaking.value"
      @mousedown.prevent
      @click="emit('press')"
    />
    <div v-if="recorder.speaking.value" class="live">
      <canvas ref="canvas" aria-hidden="true" />
      <span class="figures time" :class="{ over }" role="timer"
        >{{ clock(seconds) }} <small>of {{ clock(BUDGET_SECONDS) }}</small></span
      >
    </div>
    <div v-else class="words" role="status">
      <p v-if="recorder.problem.value" class="problem">{{ recorder.problem.value }}</p>
      <p v-else-if="notice" class="notice">
        {{ notice.text }} <v-btn v-if="notice.undo" size="small" variant="outlined" @click="emit('undo')">Undo</v-btn>
      </p>
      <p v-else class="hint">{{ hint }}</p>
    </div>
    <div v-if="!locked" class="key" role="radiogroup" aria-label="Kind of the next remark" @mousedown.prevent>
      <button
        v-for="(info, index) in KINDS"
        :key="info.kind"
        type="button"
        role="radio"
        :aria-checked="info.kind === kind"
        :class="`kind-${info.kind}`"
        @click="emit('kind', info.kind)"
      >
        <span aria-hidden="true">{{ info.glyph }}</span> {{ info.name }} <kbd>{{ index + 1 }}</kbd>
      </button>
    </div>
    <v-btn
      v-if="!locked"
      size="small"
      class="microphone"
      :disabled="recorder.speaking.value"
      @click="recorder.usePractice(!recorder.practising.value)"
    >
      {{
        recorder.practising.value
          ? 'Practice microphone'
          : recorder.status.value === 'off'
            ? 'Microphone off'
            : 'Microphone on'
      }}
      <span class="visually-hidden"
        >: switch to the {{ recorder.practising.value ? 'real' : 'practice' }} microphone</span
      >
    </v-btn>
  </footer>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 16px;
  height: 68px;
  padding: 0 20px;
  background: var(--paper);
  border-top: 1px solid var(--hairline);
}
.record {
  flex: none;
  background: var(--ink);
  color: var(--paper);
}
.record.speaking {
  background: var(--kind);
}
.live {
  display: flex;
  flex: 1;
  align-items: center;
  gap: 16px;
  min-width: 0;
}
canvas {
  flex: 1;
  min-width: 0;
  height: 44px;
  color: var(--kind);
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
.words {
  flex: 1;
  min-width: 0;
}
.hint,
.notice {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.problem {
  color: rgb(var(--v-theme-error));
}
.key {
  display: flex;
  gap: 4px;
}
.key button {
  padding: 4px 8px;
  color: var(--kind);
  font-weight: 600;
  font-size: 13px;
  border: 1px solid transparent;
  border-radius: 4px;
  white-space: nowrap;
}
.key button[aria-checked='true'] {
  border-color: var(--kind);
}
kbd {
  margin-left: 2px;
  color: var(--quiet);
  font: inherit;
  font-weight: 400;
}
.microphone {
  flex: none;
  color: var(--quiet);
}
</style>
