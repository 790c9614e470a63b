<script setup lang="ts">
import { clock } from '#core/audio';
import { textOfWords, wordsWithin } from '#core/transcript';
import type { Remark } from '#contract/remarks';
import {
  mdiArrowCollapseDown,
  mdiChevronLeft,
  mdiChevronRight,
  mdiContentCut,
  mdiDeleteRestore,
  mdiPause,
  mdiPlay,
  mdiTarget,
  mdiTrashCanOutline,
} from '@mdi/js';
import { computed } from 'vue';
import { useMarginKey } from '../../feedback/margin-key.ts';
import { useAnchorName } from '../../feedback/use-anchor-name.ts';
import { recordingUrl } from '../../player/media-url.ts';
import { usePlayer } from '../../player/player.ts';
import { useDesk } from '../desk.ts';
import type { Part, Parts } from './use-parts.ts';

/** One part of a talk-through: what it is about, when it begins, what is said. */
const props = defineProps<{
  part: Part;
  index: number;
  before: Part | undefined;
  last: boolean;
  remark: Remark;
  list: Parts;
}>();

/** A boundary with more doubt than this is to be listened to. */
const DOUBTFUL = 0.25;

const desk = useDesk();
const player = usePlayer();
const margin = useMarginKey();
const nameOf = useAnchorName();
const number = computed(() => props.index + 1);
const kind = computed(() => props.part.kind ?? props.remark.kind);
const words = computed(() => {
  const { transcript } = props.remark.recording!;
  return transcript ? textOfWords(wordsWithin(transcript.words, props.part)) : '';
});
const inside = computed(
  () =>
    player.current.value === props.remark.recording!.id &&
    player.position.value >= props.part.start &&
    player.position.value < props.part.end,
);
const plays = computed(() => inside.value && player.playing.value);

function play(): void {
  const recording = props.remark.recording!;
  if (plays.value) void player.toggle(recording.id, recordingUrl(recording));
  else void player.playStretch(recording.id, recordingUrl(recording), props.part);
}

/** Steps from pause to pause, as the mouse does. */
function key(event: KeyboardEvent): void {
  const by = { ArrowLeft: -1, ArrowDown: -1, ArrowRight: 1, ArrowUp: 1 }[event.key] as 1 | -1 | undefined;
  if (!by) return;
  event.preventDefault();
  props.list.step(props.index, by);
}
const drag = (event: Event): void => props.list.moveTo(props.index, Number((event.target as HTMLInputElement).value));
</script>

<template>
  <li :class="[`kind-${kind}`, { thrown: part.thrown }]">
    <div class="head">
      <v-btn
        :icon="plays ? mdiPause : mdiPlay"
        size="28"
        variant="flat"
        class="play"
        :aria-label="`${plays ? 'Pause' : 'Hear'} part ${number}`"
        @click="play"
      />
      <span class="kind">{{ margin.entry(kind).glyph }} {{ margin.entry(kind).name }}</span>
      <span class="figures when">{{ clock(part.start) }} – {{ clock(part.end) }}</span>
    </div>
    <p class="about">{{ nameOf(part.anchor) }}</p>
    <p v-if="words" class="words">{{ words }}</p>
    <div v-if="before" class="begins">
      <v-btn
        :icon="mdiChevronLeft"
        size="24"
        :aria-label="`Part ${number} begins a pause earlier`"
        @click="list.step(index, -1)"
      />
      <input
        type="range"
        :min="before.start"
        :max="part.end"
        step="0.01"
        :value="part.start"
        :aria-label="`Where part ${number} begins`"
        :aria-valuetext="clock(part.start)"
        @input="drag"
        @keydown="key"
      />
      <v-btn
        :icon="mdiChevronRight"
        size="24"
        :aria-label="`Part ${number} begins a pause later`"
        @click="list.step(index, 1)"
      />
    </div>
    <p v-if="before && part.doubt > DOUBTFUL" class="doubt">Listen where it begins: it may be another pause.</p>
    <div class="deeds">
      <v-btn
        v-if="desk.target.value"
        :icon="mdiTarget"
        size="28"
        :aria-label="`Part ${number} is about ${desk.target.value.name}`"
        :title="`Make it about ${desk.target.value.name}`"
        @mousedown.prevent
        @click="list.about(index, desk.target.value.anchor)"
      />
      <v-btn
        v-if="inside"
        :icon="mdiContentCut"
        size="28"
        :aria-label="`Split part ${number} where it stands`"
        title="Split at the pause nearest to what is heard"
        @click="list.split(index, player.position.value)"
      />
      <v-btn
        v-if="!last"
        :icon="mdiArrowCollapseDown"
        size="28"
        :aria-label="`Join part ${number} with the next`"
        title="Join with the next"
        @click="list.merge(index)"
      />
      <v-btn
        :icon="part.thrown ? mdiDeleteRestore : mdiTrashCanOutline"
        size="28"
        :aria-label="part.thrown ? `Keep part ${number} after all` : `Leave part ${number} out`"
        :title="part.thrown ? 'Keep it after all' : 'Leave it out'"
        @click="list.throwAway(index, !part.thrown)"
      />
    </div>
  </li>
</template>

<style scoped>
li {
  padding: 8px 0 4px;
  border-top: 1px solid var(--hairline);
}
.thrown .about,
.thrown .words {
  text-decoration: line-through;
  opacity: 0.6;
}
.head {
  display: flex;
  align-items: center;
  gap: 8px;
}
.play {
  background: var(--kind);
  color: var(--paper);
}
.kind {
  color: var(--kind);
  font-weight: 600;
  font-size: 13px;
}
.when {
  margin-left: auto;
  color: var(--quiet);
  font-size: 13px;
}
.about {
  margin-top: 4px;
}
.words {
  display: -webkit-box;
  overflow: hidden;
  color: var(--quiet);
  font-size: 13px;
  line-height: 1.35;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
}
.begins {
  display: flex;
  align-items: center;
}
.begins input {
  flex: 1;
  min-width: 0;
  accent-color: var(--kind);
}
.doubt {
  font-size: 13px;
  font-weight: 600;
}
.deeds {
  display: flex;
  justify-content: flex-end;
}
</style>
