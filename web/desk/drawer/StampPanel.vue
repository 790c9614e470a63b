<script setup lang="ts">
import { urlOf } from '#contract/endpoint';
import {
  addStamp,
  readStamps,
  removeStamp,
  STAMP_DRAWINGS,
  stampPicture,
  type Stamp,
  type StampPicture,
} from '#contract/stamps';
import { mdiPlus, mdiTrashCanOutline } from '@mdi/js';
import { onMounted, shallowRef } from 'vue';
import { call } from '../../session/api.ts';
import StampDrawing from '../../folio/StampDrawing.vue';
import { DRAWINGS } from '../../folio/stamp-drawings.ts';
import FileInput from '../../shell/FileInput.vue';
import SidePanel from '../../shell/SidePanel.vue';
import { useDeed } from '../../shell/use-deed.ts';

/** Stamps to put on the work: drawings that everybody has, and pictures of one's own. */
defineProps<{ kind: string; /** Where the stamp will be put, in words. */ target: string }>();
const emit = defineEmits<{ close: []; stamp: [stamp: Stamp] }>();

const SIZE = 2.5;

const own = shallowRef<StampPicture[]>([]);
const { problem, attempt } = useDeed();

onMounted(async () => {
  own.value = await call(readStamps).catch(() => []);
});

async function add([file]: [File, ...File[]]): Promise<void> {
  await attempt(async () => {
    own.value = [...own.value, await call(addStamp, { params: { stamp: crypto.randomUUID() }, files: [file] })];
  });
}

async function remove(stamp: StampPicture): Promise<void> {
  await attempt(async () => {
    await call(removeStamp, { params: { stamp: stamp.id } });
    own.value = own.value.filter(({ id }) => id !== stamp.id);
  });
}
</script>

<template>
  <SidePanel title="Stamps" @close="$emit('close')">
    <p class="quiet">{{ target }}</p>
    <ul :class="`kind-${kind}`">
      <li v-for="drawing in STAMP_DRAWINGS" :key="drawing">
        <button
          type="button"
          class="choice"
          :aria-label="`Stamp: ${DRAWINGS[drawing].name}`"
          @mousedown.prevent
          @click="emit('stamp', { drawing, size: SIZE })"
        >
          <StampDrawing :stamp="{ drawing, size: SIZE }" remark="" />
        </button>
      </li>
      <li v-for="stamp in own" :key="stamp.id">
        <button
          type="button"
          class="choice"
          :aria-label="`Stamp: ${stamp.name}`"
          @mousedown.prevent
          @click="emit('stamp', { picture: stamp.sha256, size: SIZE })"
        >
          <img :src="urlOf(stampPicture, { stamp: stamp.id, sha256: stamp.sha256 })" alt="" />
        </button>
        <v-btn
          class="remove"
          :icon="mdiTrashCanOutline"
          size="24"
          :aria-label="`Remove the stamp ${stamp.name} from the list`"
          @click="remove(stamp)"
        />
      </li>
    </ul>
    <FileInput v-slot="{ open }" label="Picture for a stamp" accept="image/png,image/jpeg,image/webp" @choose="add">
      <v-btn size="small" variant="outlined" :prepend-icon="mdiPlus" @click="open">A picture of your own</v-btn>
    </FileInput>
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  </SidePanel>
</template>

<style scoped>
ul {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: 8px;
  margin: 12px 0;
  list-style: none;
}
li {
  position: relative;
}
.choice {
  width: 100%;
  aspect-ratio: 1;
  padding: 12px;
  border: 1px solid var(--hairline);
  border-radius: 4px;
}
.choice:hover {
  border-color: var(--kind);
}
img {
  width: 100%;
  height: 100%;
  object-fit: contain;
}
.remove {
  position: absolute;
  top: 0;
  right: 0;
}
.refused {
  margin-top: 8px;
}
</style>
