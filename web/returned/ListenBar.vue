<script setup lang="ts">
import {
  mdiClose,
  mdiClosedCaption,
  mdiClosedCaptionOutline,
  mdiPause,
  mdiPlay,
  mdiSkipNext,
  mdiSkipPrevious,
} from '@mdi/js';
import { computed } from 'vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import { usePlayer } from '../player/player.ts';
import { useCaptions, useCaptionsShown } from '../transcript/use-captions.ts';
import type { ListenThrough } from './use-listen-through.ts';

/** Goes on along the bottom while somebody listens through all remarks. */
const props = defineProps<{ listening: ListenThrough }>();

const player = usePlayer();
const margin = useMarginKey();
const shown = useCaptionsShown();
const remark = computed(() => props.listening.now.value);
const place = computed(() => (props.listening.place.value ?? 0) + 1);
const count = computed(() => props.listening.count.value);
const { captions } = useCaptions(() => remark.value?.recording);
const goes = computed(() => player.playing.value);
</script>

<template>
  <section v-if="remark" class="bar" :class="`kind-${remark.kind}`" aria-label="Listening through">
    <v-btn
      :icon="mdiSkipPrevious"
      size="40"
      aria-label="Remark before"
      :disabled="place <= 1"
      @click="listening.step(-1)"
    />
    <v-btn
      :icon="goes ? mdiPause : mdiPlay"
      size="44"
      variant="flat"
      class="go"
      :aria-label="goes ? 'Pause' : listening.over.value ? 'From the beginning' : 'Go on'"
      @click="listening.pauseOrGoOn()"
    />
    <v-btn
      :icon="mdiSkipNext"
      size="40"
      aria-label="Remark after"
      :disabled="place >= count"
      @click="listening.step(1)"
    />
    <span class="where" role="status"
      ><span class="figures">{{ place }} of {{ count }} spoken</span> {{ margin.entry(remark.kind).name }}</span
    >
    <p class="words" :lang="captions?.language" dir="auto">
      <template v-if="listening.over.value">That was the last remark.</template>
      <template v-else-if="player.problem.value">{{ player.problem.value }}</template>
      <span v-for="line in captions?.lines ?? []" v-else :key="line">{{ line }}</span>
    </p>
    <v-btn
      :icon="shown ? mdiClosedCaption : mdiClosedCaptionOutline"
      size="40"
      :aria-pressed="shown"
      aria-label="Captions"
      title="Captions (C)"
      @click="shown = !shown"
    />
    <v-btn
      :icon="mdiClose"
      size="40"
      aria-label="End listening"
      title="End listening (Escape)"
      @click="listening.end()"
    />
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 6px;
  min-height: 64px;
  padding: 6px 16px;
  background: var(--paper);
  border-top: 3px solid var(--kind);
}
.go {
  background: var(--kind);
  color: var(--paper);
}
.where {
  flex: none;
  min-width: 108px;
  margin-left: 8px;
  color: var(--quiet);
}
.words {
  flex: 1;
  min-width: 0;
  font-size: 17px;
  line-height: 1.35;
}
.words span {
  display: block;
}
@media (max-width: 900px) {
  .bar {
    flex-wrap: wrap;
    gap: 0 4px;
    padding: 2px 8px;
    position: fixed;
    inset: 0 0 auto;
    z-index: 16;
    border-top-width: 0;
    border-bottom: 3px solid var(--kind);
  }
  .where {
    min-width: 0;
    margin-right: auto;
  }
  .words {
    flex-basis: 100%;
    order: 1;
    padding: 0 6px 6px;
    font-size: 15px;
  }
}
</style>
