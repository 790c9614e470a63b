<script setup lang="ts">
import { clock } from '#core/audio';
import type { Sound } from '#contract/sound';
import { mdiPause, mdiPlay } from '@mdi/js';
import { computed, useTemplateRef, watch } from 'vue';
import { usePlayer } from './player.ts';
import WaveForm from './WaveForm.vue';

/** A recording that can be played: button, waveform, clock; and its picture, where it has one. */
const props = defineProps<{
  id: string;
  url: string;
  sound: Sound;
  label: string;
  captions?: { language: string; lines: string[] } | undefined;
}>();

const player = usePlayer();
const screen = useTemplateRef('screen');
const current = computed(() => player.current.value === props.id);
const playing = computed(() => current.value && player.playing.value);
const position = computed(() => (current.value ? player.position.value : 0));

// There is one player, so its picture goes to whoever plays.
watch(
  () => [current.value, screen.value] as const,
  ([isCurrent, element]) => isCurrent && element?.prepend(player.element),
);

// Another sound, e.g. after a cut, begins at its beginning.
watch(
  () => props.url,
  () => current.value && player.stop(),
);

async function seek(seconds: number): Promise<void> {
  if (!playing.value) await player.toggle(props.id, props.url);
  player.seek(seconds);
}
</script>

<template>
  <div v-if="sound.picture" v-show="current" ref="screen" class="screen">
    <p v-if="captions" class="captions" :lang="captions.language" dir="auto">
      <span v-for="line in captions.lines" :key="line">{{ line }}</span>
    </p>
  </div>
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
  <p v-if="sound.picture" class="note">{{ sound.picture === 'camera' ? 'Camera note' : 'Screen note' }}</p>
  <p v-if="current && player.problem.value" class="refused" role="alert">{{ player.problem.value }}</p>
</template>

<style scoped>
.screen {
  margin: 4px 0 8px;
}
.screen :deep(video) {
  display: block;
  width: 100%;
  background: #000;
  border-radius: 3px;
}
.captions {
  padding: 4px 6px;
  background: var(--ink);
  color: var(--paper);
  font-size: 13px;
  text-align: center;
}
.captions span {
  display: block;
}
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
.clock,
.note {
  flex: none;
  color: var(--quiet);
  font-size: 13px;
}
.refused {
  font-size: 13px;
}
</style>
