<script setup lang="ts">
import { clock } from '#core/audio';
import type { Sound } from '#contract/sound';
import { mdiPause, mdiPlay } from '@mdi/js';
import { computed } from 'vue';
import { usePlayer } from '../player.ts';
import WaveForm from './WaveForm.vue';

/** A recording that can be played: button, waveform, clock. */
const props = defineProps<{ id: string; url: string; sound: Sound; label: string }>();

const player = usePlayer();
const current = computed(() => player.current.value === props.id);
const playing = computed(() => current.value && player.playing.value);
const position = computed(() => (current.value ? player.position.value : 0));

async function seek(seconds: number): Promise<void> {
  if (!playing.value) await player.toggle(props.id, props.url);
  player.seek(seconds);
}
</script>

<template>
  <div class="strip">
    <v-btn
      :icon="playing ? mdiPause : mdiPlay"
      size="32"
      variant="flat"
      class="play"
      :aria-label="`${playing ? 'Pause' : 'Play'} ${label}`"
      @click.stop="player.toggle(id, url)"
    />
    <WaveForm class="wave" :peaks="sound.peaks" :duration="sound.duration" :position="position" @seek="seek" />
    <span class="figures clock">{{ clock(position > 0 ? position : sound.duration) }}</span>
  </div>
  <p v-if="current && player.problem.value" class="problem" role="alert">{{ player.problem.value }}</p>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: 10px;
}
.play {
  flex: none;
  background: var(--kind);
  color: var(--paper);
}
.wave {
  flex: 1;
  min-width: 0;
}
.clock {
  flex: none;
  color: var(--quiet);
  font-size: 13px;
}
.problem {
  color: rgb(var(--v-theme-error));
  font-size: 13px;
}
</style>
