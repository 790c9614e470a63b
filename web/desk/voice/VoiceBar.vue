<script setup lang="ts">
import { mdiDotsHorizontal, mdiGestureTap, mdiMicrophone, mdiPause, mdiRecord, mdiStop } from '@mdi/js';
import { computed, useTemplateRef, watchEffect } from 'vue';
import { useRecorder } from '../../recorder/use-recorder.ts';
import RateButton from '../../player/RateButton.vue';
import KindChoice from './KindChoice.vue';
import LiveWave from '../../recorder/LiveWave.vue';
import { COMMANDS, commandOf } from '../commands.ts';
import { withKey } from '../../shell/command.ts';
import { useDesk } from '../desk.ts';
import { counted, percent } from '../../wording/format.ts';

/** Along the bottom of the desk: record, live waveform, time against the budget, and all else that a remark can be. */
const props = defineProps<{
  /** What to do next, in words. */
  hint: string;
  budget: number | null;
  /** Whether something is chosen that can be reacted to. */
  reactable: boolean;
}>();

const QUICK = ['👍', '👏', '💡', '❓', '❤️'] as const;
const MENU = COMMANDS.filter(({ menu }) => menu);

const desk = useDesk();
const { notice, counting, returned: locked, nextKind: kind, talking } = desk;
const talked = computed(() => {
  const [passages, strokes] = [talking.passages.value, talking.strokes.value.length];
  return [counted(passages, 'passage'), ...(strokes > 0 ? [counted(strokes, 'stroke')] : [])].join(', ');
});
const recorder = useRecorder();
const preview = useTemplateRef<HTMLVideoElement>('preview');
const paused = computed(() => recorder.status.value === 'paused');
const finishing = computed(() => recorder.status.value === 'finishing' && recorder.progress.value > 0);

watchEffect(() => {
  if (preview.value) preview.value.srcObject = recorder.picture.value ?? null;
});

const hint = computed(() => {
  if (locked.value) return 'This work is with its student. Take it back to change what you said.';
  if (recorder.status.value === 'opening') return 'Opening the microphone. Your browser may ask you to allow it.';
  return props.hint;
});
const microphone = computed(() => {
  if (recorder.practising.value) return 'Practice microphone';
  return recorder.status.value === 'off' ? 'Microphone off' : 'Microphone on';
});
</script>

<template>
  <footer class="bar" :class="`kind-${kind}`" aria-label="Voice bar">
    <v-btn
      class="record"
      rounded="circle"
      :class="{ speaking: recorder.speaking.value }"
      :icon="recorder.speaking.value ? mdiStop : mdiMicrophone"
      size="48"
      variant="flat"
      :disabled="locked"
      :aria-label="recorder.speaking.value ? 'Stop recording' : 'Record a remark'"
      @mousedown.prevent
      @click="desk.press()"
    />
    <template v-if="recorder.speaking.value">
      <v-btn
        :icon="paused ? mdiRecord : mdiPause"
        size="36"
        :aria-label="paused ? 'Go on recording' : 'Pause recording'"
        @mousedown.prevent
        @click="desk.pause()"
      />
      <video v-if="recorder.picture.value" ref="preview" class="preview" autoplay muted playsinline />
      <div class="live">
        <p v-if="finishing" role="status">Evening out the loudness … {{ percent(recorder.progress.value) }}</p>
        <span v-if="talking.on.value" class="talked" role="status"
          ><strong>Talking it through</strong> <span class="figures">{{ talked }}</span></span
        >
        <LiveWave :budget="talking.on.value ? null : budget" />
        <span v-if="paused" class="paused" role="status">paused</span>
      </div>
      <v-btn size="small" variant="outlined" @mousedown.prevent @click="desk.discard()">Throw away</v-btn>
    </template>
    <p v-else-if="counting > 0" class="words counting figures" role="status">{{ counting }}</p>
    <template v-else>
      <div class="words" role="status">
        <p v-if="recorder.problem.value" class="refused">{{ recorder.problem.value }}</p>
        <p v-else-if="notice" class="notice">
          {{ notice.text }}
          <v-btn v-if="notice.undo" size="small" variant="outlined" @click="desk.wayBack()">{{
            notice.way ?? 'Undo'
          }}</v-btn>
        </p>
        <p v-else class="hint">{{ hint }}</p>
      </div>
      <template v-if="!locked">
        <div v-if="reactable" class="quick" role="group" aria-label="React" @mousedown.prevent>
          <button
            v-for="emoji in QUICK"
            :key="emoji"
            type="button"
            :aria-label="`React with ${emoji}`"
            @click="desk.react(emoji)"
          >
            {{ emoji }}
          </button>
        </div>
        <v-btn
          class="through"
          :icon="mdiGestureTap"
          size="36"
          :aria-label="commandOf('talk').title"
          :title="withKey(commandOf('talk'))"
          @mousedown.prevent
          @click="desk.talkThrough()"
        />
        <v-menu location="top end">
          <template #activator="{ props: menu }">
            <v-btn
              v-bind="menu"
              :icon="mdiDotsHorizontal"
              size="36"
              aria-label="Other kinds of remark"
              title="Write, suggest, stamp …"
              @mousedown.prevent
            />
          </template>
          <v-list density="compact" role="menu">
            <v-list-item
              v-for="command in MENU"
              :key="command.id"
              role="menuitem"
              @mousedown.prevent
              @click="command.run?.(desk, '')"
            >
              <span class="form">{{ command.title }}</span> <kbd v-if="command.shown">{{ command.shown }}</kbd>
            </v-list-item>
          </v-list>
        </v-menu>
      </template>
    </template>
    <KindChoice v-if="!locked" :kind="kind" @kind="desk.setKind" />
    <RateButton />
    <v-btn
      v-if="!locked"
      size="small"
      class="microphone"
      :disabled="recorder.speaking.value"
      @click="desk.open('microphone')"
    >
      {{ microphone }}<span class="visually-hidden">: {{ commandOf('microphone').title }}</span>
    </v-btn>
  </footer>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 12px;
  height: 68px;
  padding: 0 20px;
  background: var(--paper);
  border-top: 1px solid var(--hairline);
}
.record {
  flex: none;
  background: var(--ink);
  color: var(--paper);
}
.record.speaking {
  background: var(--kind);
}
.live {
  display: flex;
  flex: 1;
  align-items: center;
  gap: 12px;
  min-width: 0;
}
.talked {
  flex: none;
  line-height: 1.25;
}
.talked .figures {
  display: block;
  color: var(--quiet);
  font-size: 13px;
}
/* There the menu has it, and the hint its place. */
@media (max-width: 900px) {
  .through {
    display: none;
  }
}
.preview {
  height: 60px;
  border-radius: 4px;
  background: #000;
}
.words {
  flex: 1;
  min-width: 0;
}
.counting {
  color: var(--kind);
  font-size: 32px;
  font-weight: 650;
}
.hint,
.notice {
  display: -webkit-box;
  overflow: hidden;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
}
.quick {
  display: flex;
}
.quick button {
  width: 30px;
  height: 30px;
  font-size: 18px;
  font-family: var(--emoji);
  border-radius: 4px;
}
.quick button:hover {
  background: var(--ground);
}
.form {
  margin-right: 24px;
}
kbd {
  color: var(--quiet);
  font: inherit;
}
.microphone {
  flex: none;
  color: var(--quiet);
}
</style>
