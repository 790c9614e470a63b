<script setup lang="ts">
import { usePlayer } from './player.ts';

const player = usePlayer();
</script>

<template>
  <v-btn
    size="small"
    class="rate figures"
    :aria-label="`Playback speed: ${player.rate.value} times. Change`"
    title="Playback speed (S)"
    @mousedown.prevent
    @click="player.nextRate()"
    >{{ player.rate.value }} ×</v-btn
  >
</template>

<style scoped>
.rate {
  flex: none;
  min-width: 52px;
  color: var(--quiet);
}
</style>
