<script setup lang="ts">
import type { Stamp } from '#contract/stamps';
import { computed } from 'vue';
import { stampUrl } from '../player/media-url.ts';
import { DRAWINGS } from './stamp-drawings.ts';

/** A stamp as it lies on the work: one of the drawings that everybody has, or a teacher's own picture. */
const props = defineProps<{ stamp: Stamp; remark: string }>();

const drawing = computed(() => ('drawing' in props.stamp ? DRAWINGS[props.stamp.drawing] : undefined));
const picture = computed(() => ('picture' in props.stamp ? stampUrl(props.remark, props.stamp.picture) : undefined));
</script>

<template>
  <svg v-if="drawing" class="stamp" viewBox="0 0 48 48" role="img" :aria-label="`Stamp: ${drawing.name}`">
    <path :d="drawing.path" />
  </svg>
  <img v-else class="stamp" :src="picture" alt="Stamp: a picture of your teacher’s" draggable="false" />
</template>

<style scoped>
.stamp {
  display: block;
  width: 100%;
  height: 100%;
  object-fit: contain;
}
path {
  fill: none;
  stroke: var(--kind);
  stroke-width: 2.6;
  stroke-linecap: round;
  stroke-linejoin: round;
}
</style>
