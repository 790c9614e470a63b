<script setup lang="ts">
import { clock } from '#core/audio';
import {
  mdiClose,
  mdiClosedCaption,
  mdiClosedCaptionOutline,
  mdiPause,
  mdiPlay,
  mdiSkipNext,
  mdiSkipPrevious,
} from '@mdi/js';
import { computed, defineAsyncComponent } from 'vue';
import { recordingUrl } from '../player/media-url.ts';
import { usePlayer } from '../player/player.ts';
import { useCaptions, useCaptionsShown } from '../transcript/use-captions.ts';
import type { TalkShow } from './use-talk-show.ts';

// It brings what makes films.
const FilmButton = defineAsyncComponent(() => import('./film/FilmButton.vue'));

/** While a talk-through is heard: where in it one is, its passages to jump to, its words. */
const props = defineProps<{ show: TalkShow }>();

const player = usePlayer();
const captionsShown = useCaptionsShown();
const recording = computed(() => props.show.remark.value?.recording ?? undefined);
const { captions } = useCaptions(() => recording.value);
const duration = computed(() => recording.value?.sound.duration ?? 0);
const passages = computed(() => props.show.timeline.value?.passages ?? []);
const place = computed(() => passages.value.filter(({ at }) => at <= player.position.value).length);

/** A little before it was chosen, people have often begun to speak about it. */
const RUN_UP = 1;
const before = computed(() => passages.value.findLast(({ at }) => at - RUN_UP < player.position.value - RUN_UP));
const after = computed(() => passages.value.find(({ at }) => at - RUN_UP > player.position.value));
const hear = (passage: { at: number } | undefined): void => void (passage && props.show.playFrom(passage.at - RUN_UP));
const toggle = (): void => void (recording.value && player.toggle(recording.value.id, recordingUrl(recording.value)));
const seek = (event: Event): void => player.seek(Number((event.target as HTMLInputElement).value));
</script>

<template>
  <section v-if="recording" class="bar" aria-label="Talk-through">
    <v-btn
      :icon="player.playing.value ? mdiPause : mdiPlay"
      size="40"
      variant="flat"
      class="go"
      :aria-label="player.playing.value ? 'Pause the talk-through' : 'Go on with the talk-through'"
      @click="toggle"
    />
    <template v-if="passages.length > 0">
      <v-btn :icon="mdiSkipPrevious" size="36" aria-label="Passage before" :disabled="!before" @click="hear(before)" />
      <v-btn :icon="mdiSkipNext" size="36" aria-label="Passage after" :disabled="!after" @click="hear(after)" />
    </template>
    <span class="figures where">{{ clock(player.position.value) }} of {{ clock(duration) }}</span>
    <div class="line">
      <input
        type="range"
        min="0"
        :max="duration"
        step="0.1"
        :value="player.position.value"
        aria-label="Moment of the talk-through"
        @input="seek"
      />
      <span
        v-for="({ at, kind }, index) in passages"
        :key="index"
        aria-hidden="true"
        :class="['mark', `kind-${kind ?? show.remark.value?.kind}`, { past: index < place }]"
        :style="{ left: `${(at / (duration || 1)) * 100}%` }"
      />
    </div>
    <p v-if="captionsShown" class="words" :lang="captions?.language" dir="auto">
      <span v-if="player.problem.value">{{ player.problem.value }}</span>
      <span v-for="line in captions?.lines ?? []" v-else :key="line">{{ line }}</span>
    </p>
    <v-btn-toggle
      v-if="(show.timeline.value?.performances.length ?? 0) > 0"
      :model-value="show.mix.value"
      density="compact"
      mandatory
      aria-label="What is heard"
      @update:model-value="show.hear($event)"
    >
      <v-btn value="both" size="small">Both</v-btn>
      <v-btn value="voice" size="small">Voice alone</v-btn>
      <v-btn value="performance" size="small">Recording alone</v-btn>
    </v-btn-toggle>
    <v-btn v-if="!show.following.value" size="small" variant="outlined" @click="show.follow()">Follow again</v-btn>
    <v-btn
      :icon="captionsShown ? mdiClosedCaption : mdiClosedCaptionOutline"
      size="36"
      :aria-pressed="captionsShown"
      aria-label="Captions"
      @click="captionsShown = !captionsShown"
    />
    <FilmButton v-if="show.remark.value" :key="show.remark.value.id" :remark="show.remark.value" />
    <v-btn :icon="mdiClose" size="36" aria-label="Leave the talk-through" @click="player.stop()" />
  </section>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 10px;
  min-height: 56px;
  padding: 4px 16px;
  background: var(--paper);
  border-top: 1px solid var(--hairline);
}
.go {
  flex: none;
  background: var(--ink);
  color: var(--paper);
}
.where {
  flex: none;
  min-width: 92px;
  color: var(--quiet);
  font-size: 14px;
}
.line {
  position: relative;
  flex: 2 1 200px;
  min-width: 120px;
  padding-top: 14px;
}
input {
  display: block;
  width: 100%;
  accent-color: var(--ink);
}
.mark {
  position: absolute;
  top: 0;
  width: 4px;
  height: 12px;
  margin-left: -2px;
  background: var(--kind);
  opacity: 0.45;
}
.mark.past {
  opacity: 1;
}
.words {
  flex: 3 1 240px;
  min-width: 0;
  line-height: 1.3;
}
.words span {
  display: block;
}
@media (max-width: 900px) {
  .bar {
    position: fixed;
    inset: 0 0 auto;
    z-index: 16;
    flex-wrap: wrap;
    gap: 0 8px;
    padding: 2px 8px 4px;
    border: 0;
    border-bottom: 1px solid var(--hairline);
  }
  .words {
    flex-basis: 100%;
    order: 1;
  }
}
</style>
