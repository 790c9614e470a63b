<script setup lang="ts">
import { splitAtPauses } from '#core/audio';
import { linesOf } from '#core/transcript';
import type { Recording } from '#contract/recordings';
import { mdiPlay, mdiStop } from '@mdi/js';
import { computed } from 'vue';
import { recordingUrl } from '../player/media-url.ts';
import type { WorkTake } from './use-work-takes.ts';
import { useInTurn, type Part } from './use-in-turn.ts';

/** What the teacher said, and the same in one's own take: one after the other, or line by line. */
const props = defineProps<{ model: Recording; take: WorkTake }>();

const turns = useInTurn();
const { going } = turns;
const theirs = (start: number, end: number): Part => ({
  id: props.model.id,
  url: recordingUrl(props.model),
  start,
  end,
});
const mine = (start: number, end: number): Part => ({ id: props.take.id, url: props.take.url, start, end });
const lines = computed(() => linesOf(props.model.transcript?.words ?? []));
/** In one's own take lines are known by its pauses. */
const own = computed(() => splitAtPauses(props.take.sound.peaks, props.take.sound.duration, lines.value.length));

const ALL = 'all';
const both = computed(() => [theirs(0, props.model.sound.duration), mine(0, props.take.sound.duration)]);

const play = (name: string, parts: readonly Part[]): void =>
  going.value === name ? turns.stop() : void turns.play(name, parts);
</script>

<template>
  <section class="practice" aria-label="Beside your teacher’s recording">
    <v-btn size="small" variant="outlined" :prepend-icon="going === ALL ? mdiStop : mdiPlay" @click="play(ALL, both)">{{
      going === ALL ? 'Stop' : `Your teacher’s, then ${take.name}`
    }}</v-btn>
    <template v-if="lines.length > 1">
      <ol>
        <li v-for="(line, index) in lines" :key="index" :class="{ now: going === String(index) }">
          <v-btn
            v-if="own[index]"
            :icon="going === String(index) ? mdiStop : mdiPlay"
            size="28"
            :aria-label="
              going === String(index) ? `Stop line ${index + 1}` : `Line ${index + 1}: your teacher’s, then yours`
            "
            @click="play(String(index), [theirs(line.start, line.end), mine(own[index].start, own[index].end)])"
          />
          <span :lang="model.transcript?.language" dir="auto">{{ line.text }}</span>
        </li>
      </ol>
      <p v-if="own.length < lines.length" class="fine">
        {{ take.name }} has fewer pauses than your teacher’s recording has lines. Pause between the lines, and each of
        yours is found.
      </p>
    </template>
  </section>
</template>

<style scoped>
.practice {
  flex-basis: 100%;
}
ol {
  margin-top: 8px;
  list-style: none;
}
li {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 3px 0;
}
.now {
  font-weight: 600;
}
</style>
