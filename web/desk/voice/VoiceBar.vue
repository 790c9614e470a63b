<script setup lang="ts">
import { mdiDotsHorizontal, mdiMicrophone, mdiPause, mdiRecord, mdiStop } from '@mdi/js';
import { computed, useTemplateRef, watchEffect } from 'vue';
import { useRecorder } from '../../recorder/use-recorder.ts';
import RateButton from '../../player/RateButton.vue';
import KindChoice from './KindChoice.vue';
import LiveWave from './LiveWave.vue';
import type { Notice } from '../notice.ts';

/** Along the bottom of the desk: record, live waveform, time against the budget, and all else that a remark can be. */
const props = defineProps<{
  target: string;
  kind: string;
  locked: boolean;
  notice: Notice | undefined;
  budget: number | null;
  /** Seconds that are being counted before the recording begins. */
  counting: number;
  /** Whether something is chosen that can be reacted to. */
  reactable: boolean;
}>();
const emit = defineEmits<{
  press: [];
  kind: [index: number];
  undo: [];
  react: [emoji: string];
  open: [form: (typeof FORMS)[number]['form'] | 'emoji' | 'microphone'];
}>();

const QUICK = ['👍', '👏', '💡', '❓', '❤️'] as const;
const FORMS = [
  { form: 'write', title: 'Write a remark', key: 'T' },
  { form: 'suggest', title: 'Suggest other words', key: 'G' },
  { form: 'private', title: 'Private note, for teachers only', key: '' },
  { form: 'stamp', title: 'Stamp', key: 'X' },
  { form: 'emoji', title: 'React with an emoji', key: 'R' },
  { form: 'camera', title: 'Camera note: picture and voice', key: '' },
  { form: 'screen', title: 'Screen note: screen and voice', key: '' },
  { form: 'kinds', title: 'Change the margin key', key: '' },
] as const;

const recorder = useRecorder();
const preview = useTemplateRef<HTMLVideoElement>('preview');
const paused = computed(() => recorder.status.value === 'paused');
const finishing = computed(() => recorder.status.value === 'finishing' && recorder.progress.value > 0);

watchEffect(() => {
  if (preview.value) preview.value.srcObject = recorder.picture.value ?? null;
});

const hint = computed(() => {
  if (props.locked) return 'This work is with its student. Take it back to change what you said.';
  if (recorder.status.value === 'opening') return 'Opening the microphone. Your browser may ask you to allow it.';
  return props.target;
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
      @click="emit('press')"
    />
    <template v-if="recorder.speaking.value">
      <v-btn
        :icon="paused ? mdiRecord : mdiPause"
        size="36"
        :aria-label="paused ? 'Go on recording' : 'Pause recording'"
        @mousedown.prevent
        @click="paused ? recorder.resume() : recorder.pause()"
      />
      <video v-if="recorder.picture.value" ref="preview" class="preview" autoplay muted playsinline />
      <div class="live">
        <p v-if="finishing" role="status">Levelling … {{ Math.round(recorder.progress.value * 100) }} %</p>
        <LiveWave :budget="budget" />
        <span v-if="paused" class="paused" role="status">paused</span>
      </div>
      <v-btn size="small" variant="outlined" @mousedown.prevent @click="recorder.discard()">Throw away</v-btn>
    </template>
    <p v-else-if="counting > 0" class="words counting figures" role="status">{{ counting }}</p>
    <template v-else>
      <div class="words" role="status">
        <p v-if="recorder.problem.value" class="problem">{{ recorder.problem.value }}</p>
        <p v-else-if="notice" class="notice">
          {{ notice.text }}
          <v-btn v-if="notice.undo" size="small" variant="outlined" @click="emit('undo')">{{
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
            @click="emit('react', emoji)"
          >
            {{ emoji }}
          </button>
        </div>
        <v-menu location="top end">
          <template #activator="{ props: menu }">
            <v-btn
              v-bind="menu"
              :icon="mdiDotsHorizontal"
              size="36"
              aria-label="Other remarks than spoken ones"
              title="Write, suggest, stamp …"
              @mousedown.prevent
            />
          </template>
          <v-list density="compact">
            <v-list-item
              v-for="{ form, title, key } in FORMS"
              :key="form"
              @mousedown.prevent
              @click="emit('open', form)"
            >
              <span class="form">{{ title }}</span> <kbd v-if="key">{{ key }}</kbd>
            </v-list-item>
          </v-list>
        </v-menu>
      </template>
    </template>
    <KindChoice v-if="!locked" :kind="kind" @kind="emit('kind', $event)" />
    <RateButton />
    <v-btn
      v-if="!locked"
      size="small"
      class="microphone"
      :disabled="recorder.speaking.value"
      @click="emit('open', 'microphone')"
    >
      {{ microphone }}<span class="visually-hidden">: choose and check it</span>
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
.problem {
  color: rgb(var(--v-theme-error));
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
