<script setup lang="ts">
import 'cropperjs/dist/cropper.css';
import Cropper from 'cropperjs';
import { mdiRotateRight } from '@mdi/js';
import { useObjectUrl } from '@vueuse/core';
import { onBeforeUnmount, onUnmounted, ref, shallowRef, useTemplateRef } from 'vue';
import { useDeed } from '../shell/use-deed.ts';
import { percent } from '../wording/format.ts';
import { editPhoto } from './photo-work.ts';

/** Cuts the edges off a photographed page, turns it, and makes it easier to read, before it is handed in. */
const props = defineProps<{ file: File }>();
const emit = defineEmits<{ adjusted: [photo: File]; close: [] }>();

const SIDES = ['top', 'right', 'bottom', 'left'] as const;
/** So much of a photo is left, in per cent of its height or width. */
const LEAST = 5;

type Cut = Record<(typeof SIDES)[number], number>;

/** The photo as it is turned and lit now; what is cut off is cut off at the end. */
const source = shallowRef(props.file);
const url = useObjectUrl(source);
const image = useTemplateRef<HTMLImageElement>('image');
const contrast = ref(false);
/** Quarters clockwise. */
const turns = ref(0);
const { busy, problem, attempt } = useDeed();
const opener = document.activeElement;
/** What is cut off, in per cent of the whole. */
const cut = ref<Cut>({ top: 0, right: 0, bottom: 0, left: 0 });
let cropper: Cropper | undefined;
/** Whether the cropper shows the cut; what is chosen before that is not lost. */
const isReady = ref(false);

const OPPOSITE = { top: 'bottom', bottom: 'top', left: 'right', right: 'left' } as const;
const most = (side: keyof Cut): number => 100 - LEAST - cut.value[OPPOSITE[side]];

/** Each time another picture is shown, with the same cut. */
function open(): void {
  cropper?.destroy();
  cropper = new Cropper(image.value!, {
    ...{ viewMode: 1, autoCropArea: 1, background: false, checkOrientation: false },
    ...{ zoomable: false, movable: false, rotatable: false, toggleDragModeOnDblclick: false },
    ready: () => {
      isReady.value = true;
      show(cut.value);
    },
    crop: ({ detail }) => {
      if (isReady.value) cut.value = cutOf(detail);
    },
  });
}

/** As whole per cents: that is what the sliders say. */
function cutOf({ x, y, width, height }: Cropper.Data): Cut {
  const { naturalWidth, naturalHeight } = image.value!;
  const share = (part: number, whole: number): number => Math.min(100, Math.max(0, Math.round((100 * part) / whole)));
  return {
    top: share(y, naturalHeight),
    right: share(naturalWidth - x - width, naturalWidth),
    bottom: share(naturalHeight - y - height, naturalHeight),
    left: share(x, naturalWidth),
  };
}

function show(wanted: Cut): void {
  cut.value = wanted;
  if (!isReady.value) return;
  const { top, right, bottom, left } = wanted;
  const { naturalWidth, naturalHeight } = image.value!;
  cropper?.setData({
    x: (left / 100) * naturalWidth,
    y: (top / 100) * naturalHeight,
    width: ((100 - left - right) / 100) * naturalWidth,
    height: ((100 - top - bottom) / 100) * naturalHeight,
  });
}

let drawn = Promise.resolve(true);
/** Shows the photo as it is to be turned and lit now; one drawing follows the other, so that no press is lost. */
function redraw(): void {
  isReady.value = false;
  drawn = drawn.then(() =>
    attempt(async () => {
      source.value = await editPhoto(props.file, { turns: turns.value, contrast: contrast.value });
    }),
  );
}

function setContrast(on: boolean): void {
  contrast.value = on;
  redraw();
}

function rotate(): void {
  const { top, right, bottom, left } = cut.value;
  turns.value = (turns.value + 1) % 4;
  cut.value = { top: left, right: top, bottom: right, left: bottom };
  redraw();
}

const apply = (): Promise<boolean> =>
  attempt(async () => {
    const { x, y, width, height } = cropper!.getData(true);
    const part = { x, y, width, height };
    emit('adjusted', await editPhoto(props.file, { turns: turns.value, contrast: contrast.value, part }));
  });

onBeforeUnmount(() => cropper?.destroy());
onUnmounted(() => opener instanceof HTMLElement && opener.focus());
</script>

<template>
  <v-dialog :model-value="true" max-width="880" :aria-label="`Adjust ${file.name}`" @update:model-value="emit('close')">
    <v-card class="adjust">
      <h2>Adjust {{ file.name }}</h2>
      <div class="stage">
        <img ref="image" :src="url" alt="The photo, with the part that will be handed in" @load="open" />
      </div>
      <div class="cuts">
        <label v-for="side in SIDES" :key="side">
          <span class="fine figures">Crop {{ side }}: {{ percent(cut[side] / 100) }}</span>
          <input
            type="range"
            min="0"
            :max="most(side)"
            :value="cut[side]"
            @input="show({ ...cut, [side]: Number(($event.target as HTMLInputElement).value) })"
          />
        </label>
      </div>
      <div class="row">
        <v-checkbox
          :model-value="contrast"
          density="compact"
          hide-details
          label="More contrast"
          @update:model-value="setContrast($event === true)"
        />
        <v-btn :prepend-icon="mdiRotateRight" variant="text" @click="rotate">Rotate</v-btn>
        <span class="end">
          <v-btn variant="outlined" @click="emit('close')">Cancel</v-btn>
          <v-btn variant="flat" color="primary" :loading="busy" :disabled="busy || !isReady" @click="apply"
            >Apply</v-btn
          >
        </span>
      </div>
      <p v-if="problem" class="refused" role="alert">
        This photo could not be changed in this browser. You can hand it in as it is.
      </p>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.adjust {
  padding: 20px 24px;
  overflow-y: auto;
}
.stage {
  height: min(56vh, 460px);
  margin: 12px 0;
  background: var(--ground);
}
.stage img {
  display: block;
  max-width: 100%;
  max-height: 100%;
}
.cuts {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(150px, 1fr));
  gap: 4px 20px;
}
.cuts input {
  width: 100%;
  accent-color: var(--ink);
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  margin-top: 10px;
}
.end {
  display: flex;
  gap: 10px;
  margin-left: auto;
}
@media (max-width: 600px) {
  .stage {
    height: 36vh;
  }
  .cuts {
    grid-template-columns: 1fr 1fr;
  }
}
.stage :deep(.cropper-view-box) {
  outline-color: var(--ink);
}
.stage :deep(:is(.cropper-line, .cropper-point)) {
  background-color: var(--ink);
}
</style>
