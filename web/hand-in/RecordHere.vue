<script setup lang="ts">
import { handIn } from '#contract/assignments';
import type { Recording } from '#contract/recordings';
import { clock } from '#core/audio';
import { fileNameOf } from '#core/text';
import { mdiMicrophoneOutline, mdiPause, mdiRecord, mdiStop, mdiVideoOutline } from '@mdi/js';
import { computed, ref, useTemplateRef, watchEffect } from 'vue';
import { usePlayer } from '../player/player.ts';
import SoundStrip from '../player/SoundStrip.vue';
import LiveWave from '../recorder/LiveWave.vue';
import { BITS_PER_SECOND, VIDEO_BITS_PER_SECOND } from '../recorder/sound-path.ts';
import { useRecorder } from '../recorder/use-recorder.ts';
import { call, sentenceOf } from '../session/api.ts';
import { forgetSent, sendFiles } from '../session/resumable.ts';
import { useSchool } from '../session/school.ts';
import { byteSize, percent } from '../wording/format.ts';
import PracticeLines from './PracticeLines.vue';
import { useWorkTakes, type WorkTake } from './use-work-takes.ts';

/** A work that is recorded here: as many takes as one likes, of which one or some are handed in. */
const props = defineProps<{
  assignment: string;
  title: string;
  again: boolean;
  /** What the teacher said, to be said after them. */
  model?: Recording | undefined;
}>();
const emit = defineEmits<{ done: [submission: string] }>();

/** Seconds. */
const LONGEST_TAKE = 30 * 60;
/** Encoders write a little more than they are told. */
const ROOM = 0.9;

const recorder = useRecorder();
const player = usePlayer();
const work = useWorkTakes(props.assignment);
const { takes, chosen, countDown } = work;
const picture = ref<'camera' | null>(null);
const school = useSchool();
const fileBytes = ref<number>();
void school.load().then(
  ({ limits }) => (fileBytes.value = limits.fileBytes),
  () => undefined,
);
/** Seconds; as much as the school takes at once, and half an hour at the most. */
const longest = computed(() => {
  const bitsPerSecond = BITS_PER_SECOND + (picture.value ? VIDEO_BITS_PER_SECOND : 0);
  return Math.min(LONGEST_TAKE, Math.floor(((fileBytes.value ?? Infinity) * 8 * ROOM) / bitsPerSecond));
});
const screen = useTemplateRef('screen');
const sent = ref<number>();
const error = ref<string>();
const runs = computed(() => ['recording', 'paused', 'starting'].includes(recorder.status.value));

watchEffect(() => {
  if (screen.value) screen.value.srcObject = recorder.picture.value ?? null;
});

function begin(): void {
  player.stop();
  void work.begin(picture.value, longest.value);
}

/** What a file of this take is called; its type decides the end. */
function fileOf({ name, blob }: WorkTake): File {
  const end = blob.type.includes('mp4') ? 'mp4' : blob.type.includes('ogg') ? 'ogg' : 'webm';
  return new File([blob], `${fileNameOf(name, 'Take')}.${end}`, { type: blob.type });
}

async function send(): Promise<void> {
  error.value = undefined;
  sent.value = 0;
  const going = chosen.value;
  try {
    const files = going.map(fileOf);
    const uploads = await sendFiles(files, { patient: true, onProgress: (share) => (sent.value = share) }).done;
    const { submission } = await call(handIn, { params: { assignment: props.assignment }, uploads });
    await forgetSent(files);
    for (const { id } of going) await work.throwAway(id);
    emit('done', submission);
  } catch (failure) {
    error.value = sentenceOf(failure);
  } finally {
    sent.value = undefined;
  }
}
</script>

<template>
  <div class="record">
    <div class="stage">
      <video v-if="picture && runs" ref="screen" muted autoplay playsinline aria-label="What the camera sees" />
      <p v-if="countDown !== undefined" class="count figures" role="timer" aria-live="assertive">{{ countDown }}</p>
      <template v-else-if="runs">
        <LiveWave class="wave" :budget="longest" />
        <p v-if="recorder.status.value === 'paused'" class="fine" role="status">
          Paused at {{ clock(recorder.seconds()) }}.
        </p>
      </template>
      <p v-else-if="recorder.status.value === 'finishing'" role="status">One moment, the take is being kept …</p>
      <p v-else class="fine">
        A take can be up to {{ clock(longest) }} long{{
          picture && longest < LONGEST_TAKE ? ' with the camera: your school takes no more at once' : ''
        }}. Three seconds after you press the button it begins; record as many as you like and hand in the ones you
        choose.
      </p>
      <div class="row">
        <template v-if="countDown !== undefined || runs">
          <v-btn
            v-if="recorder.status.value === 'recording'"
            :prepend-icon="mdiPause"
            variant="outlined"
            @click="recorder.pause()"
            >Pause</v-btn
          >
          <v-btn
            v-if="recorder.status.value === 'paused'"
            :prepend-icon="mdiRecord"
            variant="outlined"
            @click="recorder.resume()"
            >Go on</v-btn
          >
          <v-btn :prepend-icon="mdiStop" variant="flat" color="primary" @click="work.stop()">Stop</v-btn>
          <v-btn v-if="runs" @click="recorder.discard()">Throw this take away</v-btn>
        </template>
        <template v-else>
          <v-btn
            :prepend-icon="mdiRecord"
            variant="flat"
            color="primary"
            :disabled="recorder.status.value === 'finishing' || sent !== undefined"
            @click="begin"
            >{{ takes.length > 0 ? 'Record another take' : 'Record' }}</v-btn
          >
          <v-btn-toggle v-model="picture" mandatory aria-label="What is recorded">
            <v-btn :value="null" size="small" :prepend-icon="mdiMicrophoneOutline">Sound only</v-btn>
            <v-btn value="camera" size="small" :prepend-icon="mdiVideoOutline">With the camera</v-btn>
          </v-btn-toggle>
        </template>
      </div>
      <p v-if="recorder.problem.value" class="refused" role="alert">{{ recorder.problem.value }}</p>
    </div>

    <ul v-if="takes.length > 0" class="takes" aria-label="Your takes">
      <li v-for="take in takes" :key="take.id">
        <v-checkbox
          :model-value="take.chosen"
          :aria-label="`Hand in ${take.name}`"
          density="compact"
          hide-details
          class="tick"
          @update:model-value="work.choose(take.id, $event === true)"
        />
        <v-text-field
          :model-value="take.name"
          density="compact"
          :aria-label="`Name of ${take.name}`"
          maxlength="80"
          class="name"
          @change="work.rename(take.id, ($event.target as HTMLInputElement).value)"
        />
        <div class="strip"><SoundStrip :id="take.id" :url="take.url" :sound="take.sound" :label="take.name" /></div>
        <span class="figures fine">{{ byteSize(take.blob.size) }}</span>
        <v-btn size="small" :disabled="sent !== undefined" @click="work.throwAway(take.id)">Throw away</v-btn>
        <PracticeLines v-if="model && take.chosen && !runs" :model="model" :take="take" />
      </li>
    </ul>
    <div v-if="takes.length > 0" class="row">
      <v-btn
        variant="flat"
        color="primary"
        :disabled="chosen.length === 0 || sent !== undefined || runs"
        :loading="sent !== undefined"
        @click="send"
        >{{ again ? 'Hand in the new version' : 'Hand in' }}</v-btn
      >
      <span v-if="sent !== undefined" class="fine figures" role="status">Sending: {{ percent(sent) }}</span>
      <span v-else class="fine">{{
        chosen.length === 0
          ? 'Tick the take that you want to hand in.'
          : 'Your takes stay in this browser until they are handed in.'
      }}</span>
    </div>
    <p v-if="error" class="refused" role="alert">{{ error }}</p>
  </div>
</template>

<style scoped>
.stage {
  display: grid;
  gap: 12px;
  padding: 18px 20px;
  background: var(--paper);
  border: 1px solid var(--hairline);
}
video {
  width: 100%;
  max-height: 46vh;
  background: #000;
}
.count {
  font-size: 64px;
  line-height: 1;
  text-align: center;
}
.wave {
  height: 56px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
}
.takes {
  margin: 16px 0;
  list-style: none;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 12px;
  padding: 10px 0;
  border-top: 1px solid var(--hairline);
}
.tick {
  flex: none;
}
.name {
  flex: 0 1 190px;
}
.strip {
  flex: 1 1 220px;
  min-width: 0;
  --kind: var(--ink);
}
</style>
