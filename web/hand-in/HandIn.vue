<script setup lang="ts">
import { handIn } from '#contract/assignments';
import { withdrawWork } from '#contract/submissions';
import { readUploadUse, type Encoding, type ReadNote, type UploadUse } from '#contract/uploads';
import { mdiClose, mdiCrop, mdiPause, mdiPlay, mdiRestore } from '@mdi/js';
import { computed, defineAsyncComponent, onBeforeUnmount, ref, shallowRef } from 'vue';
import { call, sentenceOf } from '../session/api.ts';
import { forgetSent, sendFiles, Stopped, type Sending, type SentFile } from '../session/resumable.ts';
import { useSchool } from '../session/school.ts';
import { byteSize, percent } from '../wording/format.ts';
import { isPhoto } from './photo-work.ts';
import { useReading } from './use-reading.ts';

/** Hands in one or more files as one work. A refused one leaves everything as it was. */
const props = defineProps<{ assignment: string; again: boolean }>();
const emit = defineEmits<{ done: [] }>();

const ReadNotes = defineAsyncComponent(() => import('./ReadNotes.vue'));
const AdjustPhoto = defineAsyncComponent(() => import('./AdjustPhoto.vue'));

const MAX_FILES = 20;
/** Of what may be sent within a day, from where on it is told. */
const NEARLY = 0.8;

const school = useSchool();
const files = shallowRef<File[]>([]);
/** What photos were before they were adjusted. */
const originals = new WeakMap<File, File>();
const adjusting = shallowRef<File>();
const over = ref(false);
const sending = shallowRef<Sending>();
/** How much has arrived, from 0 to 1; then the files are read. */
const sent = ref<number>();
const paused = ref(false);
const waiting = ref(false);
const use = shallowRef<UploadUse>();
const error = ref<string>();
const done = ref<string>();
/** What was handed in last, and what is to be known about how it was read. */
const handed = shallowRef<{ uploads: SentFile[]; submission: string; notes: ReadNote[] }>();

const together = computed(() => files.value.reduce((sum, { size }) => sum + size, 0));
const nearlyFull = computed(() => use.value && use.value.sent + together.value > NEARLY * use.value.most);
const { reading } = useReading(() => (sent.value ?? 0) >= 1);
/** From 0 to 1. */
const share = computed(() => (reading.value ? reading.value.read / reading.value.of : sent.value));
const progress = computed(() => {
  if (sent.value === undefined) return undefined;
  if (reading.value) return `Reading ${reading.value.file}: page ${reading.value.read} of ${reading.value.of}`;
  if (sent.value >= 1) return 'Your files have arrived and are being read. Large files take a few seconds.';
  if (paused.value) return `Paused at ${percent(sent.value)}.`;
  if (waiting.value) return `No connection at ${percent(sent.value)}. It goes on by itself as soon as there is one.`;
  return `Sending: ${percent(sent.value)}`;
});

function add(list: FileList | null | undefined): void {
  over.value = false;
  if (!list?.length || sent.value !== undefined) return;
  error.value = done.value = handed.value = undefined;
  files.value = [...files.value, ...list];
  if (files.value.length > MAX_FILES) {
    files.value = files.value.slice(0, MAX_FILES);
    error.value = `You can hand in up to ${MAX_FILES} files; the others were left out.`;
  }
  call(readUploadUse).then(
    (found) => (use.value = found),
    () => (use.value = undefined),
  );
}

function choose(event: Event): void {
  const input = event.target as HTMLInputElement;
  add(input.files);
  input.value = '';
}

const replace = (file: File, by: File): void => {
  files.value = files.value.map((one) => (one === file ? by : one));
};

/** Its button goes; the one beside it stays. */
function undo(file: File, { currentTarget }: Event): void {
  const beside = (currentTarget as HTMLElement).previousElementSibling;
  replace(file, originals.get(file)!);
  if (beside instanceof HTMLElement) beside.focus();
}

function adjusted(photo: File): void {
  const before = adjusting.value!;
  originals.set(photo, originals.get(before) ?? before);
  replace(before, photo);
  adjusting.value = undefined;
}

async function send(): Promise<void> {
  error.value = done.value = handed.value = undefined;
  sent.value = 0;
  paused.value = waiting.value = false;
  try {
    const { fileBytes } = (await school.load()).limits;
    if (together.value > fileBytes) {
      error.value = `Together these files are larger than ${byteSize(fileBytes)}, the most you can hand in. Make pictures smaller, or leave something out.`;
      return;
    }
    sending.value = sendFiles(files.value, {
      patient: true,
      onProgress: (share) => (sent.value = share),
      onWaiting: (now) => (waiting.value = now),
    });
    const uploads = await sending.value.done;
    sending.value = undefined;
    sent.value = 1;
    handed.value = { uploads, ...(await call(handIn, { params: { assignment: props.assignment }, uploads })) };
    await forgetSent(files.value);
    const [first, ...rest] = files.value;
    done.value = `${first!.name}${rest.length > 0 ? ` and ${rest.length} more have` : ' has'} been handed in.`;
    files.value = [];
    emit('done');
  } catch (failure) {
    if (!(failure instanceof Stopped)) error.value = sentenceOf(failure);
  } finally {
    sent.value = sending.value = undefined;
  }
}

/** Hands the same file in once more, read in another way, and takes the version before back. */
async function readAs(note: ReadNote, encoding: Encoding): Promise<void> {
  const before = handed.value!;
  error.value = undefined;
  sent.value = 1;
  try {
    const uploads = before.uploads.map((one) => (one.name === note.file ? { ...one, encoding } : one));
    const { submission } = await call(handIn, { params: { assignment: props.assignment }, uploads });
    const notes = before.notes.map((one) => (one === note ? { ...one, encoding } : one));
    handed.value = { uploads, submission, notes };
    if (submission !== before.submission)
      await call(withdrawWork, { params: { submission: before.submission }, body: { withdrawn: true } });
  } catch (failure) {
    error.value = sentenceOf(failure);
  } finally {
    sent.value = undefined;
    emit('done');
  }
}

function pauseOrGoOn(): void {
  paused.value = !paused.value;
  if (paused.value) sending.value?.pause();
  else sending.value?.goOn();
}

onBeforeUnmount(() => sending.value?.stop());
</script>

<template>
  <div
    class="drop"
    :class="{ over }"
    @dragover.prevent="over = true"
    @dragleave="over = false"
    @drop.prevent="add($event.dataTransfer?.files)"
  >
    <ul v-if="files.length > 0" class="files">
      <li v-for="(file, index) in files" :key="index">
        <span class="name">{{ file.name }}</span>
        <span class="figures fine">{{ byteSize(file.size) }}</span>
        <v-btn
          v-if="isPhoto(file)"
          :icon="mdiCrop"
          size="24"
          :disabled="sent !== undefined"
          :aria-label="`Crop or adjust ${file.name}`"
          title="Crop, rotate, contrast"
          @click="adjusting = file"
        />
        <v-btn
          v-if="originals.has(file)"
          :icon="mdiRestore"
          size="24"
          :disabled="sent !== undefined"
          :aria-label="`Undo the changes to ${file.name}`"
          title="Undo the changes"
          @click="undo(file, $event)"
        />
        <v-btn
          :icon="mdiClose"
          size="24"
          :disabled="sent !== undefined"
          :aria-label="`Leave out ${file.name}`"
          @click="files = files.filter((_, at) => at !== index)"
        />
      </li>
    </ul>
    <div class="row">
      <label class="choose" :class="{ busy: sent !== undefined }">
        <span class="button">{{
          files.length > 0 ? 'Add another file' : again ? 'Choose files for a new version' : 'Choose your files'
        }}</span>
        <input type="file" multiple :disabled="sent !== undefined" @change="choose" />
      </label>
      <v-btn v-if="files.length > 0" variant="flat" color="primary" :disabled="sent !== undefined" @click="send">
        {{ again ? 'Hand in the new version' : 'Hand in' }}
      </v-btn>
      <span v-else class="fine">or drop them here: text, PDF, slides, pictures, recordings, tables</span>
    </div>
    <p v-if="nearlyFull && use" class="fine figures">
      You have sent {{ byteSize(use.sent) }} within a day; {{ byteSize(use.most) }} is the most.
    </p>
    <div v-if="sent !== undefined" class="progress">
      <div class="sending">
        <v-progress-linear
          :model-value="share! * 100"
          :indeterminate="sent >= 1 && !reading"
          color="primary"
          height="6"
          aria-label="Handing in"
        />
        <template v-if="sending">
          <v-btn :prepend-icon="paused ? mdiPlay : mdiPause" size="small" variant="text" @click="pauseOrGoOn">
            {{ paused ? 'Go on' : 'Pause' }}
          </v-btn>
          <v-btn :prepend-icon="mdiClose" size="small" variant="text" @click="sending.stop()">Stop</v-btn>
        </template>
      </div>
      <p class="fine figures" role="status">{{ progress }}</p>
      <p v-if="sending" class="fine">
        If this page closes before the end, choose the same files again: it goes on where it was.
      </p>
    </div>
    <p v-if="error" class="refused" role="alert">{{ error }}</p>
    <p v-if="done" role="status">{{ done }}</p>
    <AdjustPhoto v-if="adjusting" :file="adjusting" @adjusted="adjusted" @close="adjusting = undefined" />
    <ReadNotes
      v-if="handed && handed.notes.length > 0"
      :notes="handed.notes"
      :busy="sent !== undefined"
      @read-as="readAs"
    />
  </div>
</template>

<style scoped>
.drop {
  padding: 12px;
  border: 1px dashed var(--hairline);
  border-radius: 4px;
}
.drop.over {
  border-color: var(--ink);
  background: var(--ground);
}
.files {
  margin-bottom: 10px;
  list-style: none;
}
.files li {
  display: flex;
  align-items: center;
  gap: 10px;
}
.name {
  overflow-wrap: anywhere;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
}
.button {
  display: inline-block;
  padding: 6px 14px;
  font-weight: 550;
  border: 1px solid currentColor;
  border-radius: 4px;
  cursor: pointer;
}
input {
  position: absolute;
  width: 1px;
  height: 1px;
  opacity: 0;
}
.choose:has(:focus-visible) .button {
  outline: 2px solid var(--ink);
  outline-offset: 2px;
}
.busy .button {
  opacity: 0.6;
}
.progress {
  margin-top: 12px;
}
.sending {
  display: flex;
  align-items: center;
  gap: 4px;
}
.refused {
  margin-top: 8px;
}
</style>
