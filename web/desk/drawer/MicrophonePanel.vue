<script setup lang="ts">
import { levelDbfs, microphoneVerdict, writeWav, type MicrophoneVerdict } from '#core/audio';
import { mdiMicrophoneOutline, mdiPlay } from '@mdi/js';
import { useEventListener, useRafFn } from '@vueuse/core';
import { computed, onBeforeUnmount, onMounted, ref, shallowRef } from 'vue';
import { listMicrophones } from '../../recorder/microphone.ts';
import { useRecorder } from '../../recorder/use-recorder.ts';
import SidePanel from '../../shell/SidePanel.vue';
import { useCountdownSeconds } from '../voice/use-speaking.ts';

/** Which microphone, whether it hears, and what to do if it does not. */
defineEmits<{ close: [] }>();

const TRY_SECONDS = 3;
const QUIETEST_DBFS = -60;
const PRACTICE = 'practice';

const VERDICTS: Record<MicrophoneVerdict, string> = {
  good: 'You sound clear. All remarks are brought to the same loudness, so there is nothing to adjust.',
  silent:
    'We heard nothing. Is the microphone switched off, or is it the wrong one? Choose another above and try again.',
  quiet: 'You sound very quiet. Move closer, or turn the microphone up in your computer’s settings.',
  clipping: 'You are too loud for this microphone. Move back a little, or turn it down in your computer’s settings.',
};

const recorder = useRecorder();
const countdown = useCountdownSeconds();
const microphones = shallowRef<{ id: string; name: string }[]>([]);
const level = ref(QUIETEST_DBFS);
const trying = ref(false);
const verdict = ref<MicrophoneVerdict>();
const heard = ref<string>();
const samples = new Float32Array(2048);
const open = computed(() => recorder.status.value === 'ready');
const choice = computed(() => (recorder.practising.value ? PRACTICE : recorder.device.value));

async function look(): Promise<void> {
  microphones.value = await listMicrophones();
}

onMounted(async () => {
  await recorder.warm();
  await look();
});
useEventListener(
  () => navigator.mediaDevices as MediaDevices | undefined,
  'devicechange',
  () => void look(),
);
useRafFn(
  () => {
    recorder.read(samples);
    level.value = open.value ? Math.max(QUIETEST_DBFS, levelDbfs(samples)) : QUIETEST_DBFS;
  },
  { fpsLimit: 12 },
);
onBeforeUnmount(forget);

async function choose(id: string): Promise<void> {
  forget();
  if (id === PRACTICE) await recorder.usePractice(true);
  else await recorder.useDevice(id);
  await look();
}

async function tryOut(): Promise<void> {
  forget();
  trying.value = true;
  const tried = await recorder.listen(TRY_SECONDS);
  trying.value = false;
  if (!tried) return;
  verdict.value = microphoneVerdict(tried.samples, tried.rate);
  heard.value = URL.createObjectURL(new Blob([writeWav(tried.samples, tried.rate)], { type: 'audio/wav' }));
}

function forget(): void {
  if (heard.value) URL.revokeObjectURL(heard.value);
  heard.value = undefined;
  verdict.value = undefined;
}

const playBack = (): void => void new Audio(heard.value).play();
</script>

<template>
  <SidePanel title="Microphone" @close="$emit('close')">
    <p v-if="recorder.problem.value" class="refused" role="alert">{{ recorder.problem.value }}</p>
    <v-select
      class="field"
      label="Microphone"
      :items="[
        { title: 'The computer’s own choice', value: '' },
        ...microphones.filter((one) => one.id !== 'default').map(({ id, name }) => ({ title: name, value: id })),
        { title: 'Practice microphone: speaks sample sentences', value: PRACTICE },
      ]"
      :model-value="choice"
      @update:model-value="choose"
    />
    <p class="label">How loud you are</p>
    <div class="meter">
      <meter
        :min="QUIETEST_DBFS"
        max="0"
        :low="-50"
        :high="-6"
        :optimum="-20"
        :value="level"
        aria-label="Level of the microphone"
      />
      <span class="figures">{{ open ? `${Math.round(level)} dBFS` : 'off' }}</span>
    </div>
    <div class="row">
      <v-btn
        variant="outlined"
        size="small"
        :prepend-icon="mdiMicrophoneOutline"
        :disabled="trying || recorder.speaking.value"
        @click="tryOut"
      >
        {{ trying ? 'Say a sentence …' : 'Try it for three seconds' }}
      </v-btn>
      <v-btn v-if="heard" size="small" :prepend-icon="mdiPlay" @click="playBack">Hear it</v-btn>
    </div>
    <p v-if="verdict" class="verdict" :class="verdict" role="status">{{ VERDICTS[verdict] }}</p>
    <p v-else class="quiet">Test recordings are not kept.</p>
    <v-checkbox
      label="Count 3 – 2 – 1 before recording"
      :model-value="countdown > 0"
      @update:model-value="countdown = $event ? 3 : 0"
    />
    <p class="quiet">
      Which language you speak, and who writes it down:
      <router-link :to="{ name: 'speech' }">voice and words</router-link>
    </p>
  </SidePanel>
</template>

<style scoped>
.field,
.label {
  display: block;
  margin-top: 12px;
  font-weight: 600;
}
.meter {
  display: flex;
  align-items: center;
  gap: 10px;
}
meter {
  flex: 1;
  height: 18px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  margin-top: 14px;
}
.verdict,
.quiet {
  margin-top: 10px;
}
.verdict {
  padding-left: 10px;
  border-left: 3px solid rgb(var(--v-theme-error));
}
.verdict.good {
  border-color: rgb(var(--v-theme-moss));
}
</style>
