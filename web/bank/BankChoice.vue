<script setup lang="ts">
import { clock } from '#core/audio';
import { mdiPause, mdiPlay } from '@mdi/js';
import { computed } from 'vue';
import { useMarginKey } from '../feedback/margin-key.ts';
import { usePlayer } from '../player/player.ts';
import { recordingUrl } from '../player/media-url.ts';
import { useSession } from '../session/session.ts';
import { reasonWords } from './reason-words.ts';
import type { Choice } from './use-bank-picker.ts';

/** A banked remark that can be dropped: what it is called, what it says, and why it stands here. */
const props = defineProps<{ choice: Choice; active: boolean }>();
defineEmits<{ drop: [] }>();

const player = usePlayer();
const margin = useMarginKey();
const session = useSession();
const remark = computed(() => props.choice.remark);
const entry = computed(() => margin.entry(remark.value.kind));
const said = computed(() => remark.value.recording?.transcript?.text ?? remark.value.text);
const others = computed(() => {
  const { owner, lendsVoice } = remark.value;
  if (owner.id === session.person?.id) return undefined;
  return lendsVoice ? `in the voice of ${owner.name}` : `by ${owner.name}: its words, for you to speak`;
});
const why = computed(() => props.choice.reasons.map(reasonWords)[0]);
const playing = computed(() => player.current.value === remark.value.recording?.id && player.playing.value);
</script>

<template>
  <li class="choice" :class="[`kind-${remark.kind}`, { active }]">
    <button type="button" class="drop" :aria-current="active" @mousedown.prevent @click="$emit('drop')">
      <span class="head">
        <kbd v-if="choice.key">{{ choice.key }}</kbd>
        <span class="name"
          ><span class="glyph" :title="entry.name" aria-hidden="true">{{ entry.glyph }}</span>
          {{ remark.name || said }}</span
        >
      </span>
      <span v-if="remark.name" class="said" :lang="remark.language" dir="auto">{{ said }}</span>
      <span v-if="why" class="why">{{ why }}</span>
      <span v-if="others" class="why">{{ others }}</span>
    </button>
    <span v-if="remark.recording" class="sound">
      <v-btn
        :icon="playing ? mdiPause : mdiPlay"
        size="28"
        :aria-label="`${playing ? 'Pause' : 'Play'} “${remark.name || said}”`"
        @mousedown.prevent
        @click="player.toggle(remark.recording.id, recordingUrl(remark.recording))"
      />
      <span class="figures">{{ clock(remark.recording.sound.duration) }}</span>
    </span>
  </li>
</template>

<style scoped>
.choice {
  display: flex;
  gap: 4px;
  padding: 7px 4px 7px 6px;
  border-top: 1px solid var(--hairline);
  border-left: 3px solid transparent;
}
.choice.active {
  background: var(--ground);
  border-left-color: var(--kind);
}
.drop {
  flex: 1;
  min-width: 0;
  text-align: start;
}
.head {
  display: flex;
  gap: 6px;
  align-items: baseline;
}
kbd {
  flex: none;
  min-width: 16px;
  padding: 0 3px;
  text-align: center;
  font: inherit;
  font-size: 12px;
  color: var(--quiet);
  border: 1px solid var(--hairline);
  border-radius: 3px;
}
.name {
  font-weight: 600;
  font-size: 14px;
  line-height: 1.3;
}
.glyph {
  color: var(--kind);
}
.said {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  font-size: 13px;
  line-height: 1.35;
}
.why {
  display: block;
  margin-top: 2px;
  color: var(--quiet);
  font-size: 12px;
}
.sound {
  display: flex;
  flex-direction: column;
  align-items: center;
  color: var(--quiet);
  font-size: 12px;
}
</style>
