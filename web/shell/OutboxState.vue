<script setup lang="ts">
import {
  mdiAlertCircleOutline,
  mdiCheck,
  mdiCloudAlertOutline,
  mdiCloudOffOutline,
  mdiCloudUploadOutline,
} from '@mdi/js';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useOutbox } from '../outbox/outbox.ts';
import { blobsIn } from '../outbox/parcel.ts';
import { saveAsFile } from '../outbox/save-as-file.ts';

/** Whether what was made here is safe on the server; and what could not be taken, with a way to keep its sound. */
const ChangedByTwo = defineAsyncComponent(() => import('./ChangedByTwo.vue'));

const outbox = useOutbox();

const WORDS = {
  saved: { icon: mdiCheck, text: 'Saved' },
  saving: { icon: mdiCloudUploadOutline, text: 'Saving …' },
  waiting: { icon: mdiCloudOffOutline, text: 'No connection: kept here, sent later' },
  signedOut: { icon: mdiCloudOffOutline, text: 'Signed out: kept here until you sign in again' },
  stuck: { icon: mdiCloudAlertOutline, text: 'Not taken yet' },
  refused: { icon: mdiAlertCircleOutline, text: 'Not accepted' },
} as const;

const words = computed(() => WORDS[outbox.state.value]);
const refused = computed(() => outbox.parcels.value.filter((parcel) => parcel.refused !== undefined));
const reason = computed(() =>
  outbox.state.value === 'refused' ? refused.value[0]?.refused : outbox.stuck.value[0]?.reason,
);
/** Somebody else has changed the same thing: the person chooses. */
const crossed = computed(() => refused.value.find((parcel) => parcel.now !== undefined));
const choosing = ref(false);

const sounds = computed(() =>
  (outbox.state.value === 'refused' ? refused.value : outbox.stuck.value.map(({ parcel }) => parcel)).flatMap(
    ({ change }) => blobsIn(change),
  ),
);
const save = (): void => sounds.value.forEach((blob, index) => saveAsFile(blob, `not accepted ${index + 1}`));
</script>

<template>
  <span class="outbox" role="status" :class="outbox.state.value">
    <v-icon :icon="words.icon" size="16" aria-hidden="true" />
    {{ words.text }}
    <template v-if="outbox.state.value === 'refused' || outbox.state.value === 'stuck'">
      <span class="reason" :title="reason">{{ reason }}</span>
      <v-btn v-if="sounds.length > 0" size="x-small" variant="outlined" @click="save">Save the sound</v-btn>
      <v-btn v-if="outbox.state.value === 'stuck'" size="x-small" variant="outlined" @click="outbox.tryAgain()"
        >Try again</v-btn
      >
      <v-btn v-else-if="crossed" size="x-small" variant="outlined" @click="choosing = true">Compare</v-btn>
      <v-btn v-else size="x-small" variant="outlined" @click="outbox.dropRefused()">Understood</v-btn>
    </template>
    <ChangedByTwo v-if="crossed && choosing" :parcel="crossed" @close="choosing = false" />
  </span>
</template>

<style scoped>
.outbox {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  color: var(--quiet);
  font-size: 13px;
  white-space: nowrap;
}
.waiting,
.signedOut,
.stuck {
  color: rgb(var(--v-theme-error));
}
.reason {
  max-width: 28ch;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
