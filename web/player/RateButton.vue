<script setup lang="ts">
import { usePlayer } from './player.ts';

const player = usePlayer();
</script>

<template>
  <v-btn
    size="small"
    class="rate figures"
    :aria-label="`Speed of playing: ${player.rate.value} times. Change it`"
    title="Speed of playing (S)"
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
