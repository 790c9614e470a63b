<script setup lang="ts">
import { computed, ref } from 'vue';
import { useOutbox } from '../outbox/outbox.ts';
import { blobsIn, wordsIn, type Parcel } from '../outbox/parcel.ts';
import { saveAsFile } from '../outbox/save-as-file.ts';
import ChangedByTwo from './ChangedByTwo.vue';

/** What was not accepted, one by one: why, its words, its sound. Nothing is discarded that nobody has seen. */
const emit = defineEmits<{ close: [] }>();
const outbox = useOutbox();
const reasonOf = computed(() => new Map(outbox.stuck.value.map(({ parcel, reason }) => [parcel.key, reason])));
const open = computed(() =>
  outbox.parcels.value.filter(({ key, refused }) => refused !== undefined || reasonOf.value.has(key)),
);
const comparing = ref<Parcel>();
const isSound = ({ type }: Blob): boolean => /^(audio|video)\//u.test(type);

/** Addresses of sounds that are played here; the page lets go of them when it goes. */
const addresses = new WeakMap<Blob, string>();
function addressOf(blob: Blob): string {
  if (!addresses.has(blob)) addresses.set(blob, URL.createObjectURL(blob));
  return addresses.get(blob)!;
}
const save = (parcel: Parcel): void =>
  blobsIn(parcel.change).forEach((blob, index) => saveAsFile(blob, `not accepted ${index + 1}`));

async function discard(parcel: Parcel): Promise<void> {
  await outbox.discard(parcel);
  if (open.value.length === 0) emit('close');
}
async function again(parcel: Parcel): Promise<void> {
  if (parcel.refused === undefined) outbox.tryAgain();
  else await outbox.sendAgain(parcel);
}
</script>

<template>
  <v-dialog :model-value="true" max-width="560" @update:model-value="$emit('close')">
    <v-card title="Not accepted">
      <v-card-text>
        <p v-if="open.length === 0" role="status">Everything has been saved.</p>
        <ul v-else>
          <li v-for="(parcel, index) in open" :key="parcel.key" :aria-label="`Change ${index + 1} of ${open.length}`">
            <p>{{ parcel.refused ?? reasonOf.get(parcel.key) }}</p>
            <blockquote v-for="words in wordsIn(parcel.change)" :key="words" dir="auto">{{ words }}</blockquote>
            <audio
              v-for="(blob, at) in blobsIn(parcel.change).filter(isSound)"
              :key="at"
              controls
              preload="metadata"
              :src="addressOf(blob)"
            />
            <div class="row">
              <v-btn v-if="blobsIn(parcel.change).length > 0" size="small" variant="outlined" @click="save(parcel)"
                >Download</v-btn
              >
              <v-btn v-if="parcel.now !== undefined" size="small" variant="outlined" @click="comparing = parcel"
                >Compare</v-btn
              >
              <v-btn v-else size="small" variant="outlined" @click="again(parcel)">Retry</v-btn>
              <v-btn size="small" @click="discard(parcel)">Discard</v-btn>
            </div>
          </li>
        </ul>
      </v-card-text>
      <v-card-actions>
        <v-btn variant="flat" color="primary" autofocus @click="$emit('close')">Close</v-btn>
      </v-card-actions>
    </v-card>
    <ChangedByTwo v-if="comparing" :parcel="comparing" @close="comparing = undefined" />
  </v-dialog>
</template>

<style scoped>
ul {
  display: grid;
  gap: 14px;
  list-style: none;
}
li {
  display: grid;
  gap: 8px;
  padding-bottom: 14px;
  border-bottom: 1px solid var(--hairline);
}
blockquote {
  padding-inline-start: 10px;
  font-family: var(--serif);
  border-inline-start: 2px solid var(--hairline);
}
audio {
  width: 100%;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
