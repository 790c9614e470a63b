<script setup lang="ts">
import { clock } from '#core/audio';
import { useIntervalFn } from '@vueuse/core';
import { ref } from 'vue';
import { useRecorder } from './use-recorder.ts';

/** How long the running take is. */
const recorder = useRecorder();
const seconds = ref(0);
useIntervalFn(() => (seconds.value = recorder.seconds()), 100);
</script>

<template>
  <span v-if="recorder.status.value === 'recording'" class="figures" role="timer">{{ clock(seconds) }}</span>
</template>
