<script setup lang="ts">
import {
  mdiAlertCircleOutline,
  mdiCheck,
  mdiCloudAlertOutline,
  mdiCloudOffOutline,
  mdiCloudUploadOutline,
} from '@mdi/js';
import { computed, defineAsyncComponent, ref, watch } from 'vue';
import { keepsNothing } from '../outbox/browser-store.ts';
import { useOutbox } from '../outbox/outbox.ts';

/** Whether what was made here is safe on the server; and what was not accepted, one by one. */
const ChangedByTwo = defineAsyncComponent(() => import('./ChangedByTwo.vue'));
const NotAccepted = defineAsyncComponent(() => import('./NotAccepted.vue'));

const outbox = useOutbox();

const WORDS = {
  saved: { icon: mdiCheck, text: 'Saved' },
  saving: { icon: mdiCloudUploadOutline, text: 'Saving …' },
  waiting: { icon: mdiCloudOffOutline, text: 'No connection: kept here, sent later' },
  signedOut: { icon: mdiCloudOffOutline, text: 'Signed out: kept here until you sign in again' },
  otherPerson: { icon: mdiCloudOffOutline, text: 'Kept here: someone else is signed in' },
  stuck: { icon: mdiCloudAlertOutline, text: 'Not taken yet' },
  refused: { icon: mdiAlertCircleOutline, text: 'Not accepted' },
} as const;

const words = computed(() => WORDS[outbox.state.value]);
const refused = computed(() => outbox.parcels.value.filter((parcel) => parcel.refused !== undefined));
const reason = computed(() => refused.value[0]?.refused ?? outbox.stuck.value[0]?.reason);
/** What nobody has taken, whatever else is still on its way. */
const open = computed(() => refused.value.length + outbox.stuck.value.length);
/** Somebody else has changed the same thing: the person chooses. */
const crossed = computed(() => (open.value === 1 ? refused.value.find(({ now }) => now !== undefined) : undefined));
const looking = ref(false);
watch(open, (now) => {
  if (now === 0) looking.value = false;
});
</script>

<template>
  <span class="outbox" role="status" :class="outbox.state.value">
    <v-icon :icon="words.icon" size="16" aria-hidden="true" />
    {{ words.text }}
    <template v-if="open > 0">
      <span class="reason" :title="reason">{{ reason }}</span>
      <v-btn size="x-small" variant="outlined" @click="looking = true">{{
        crossed ? 'Compare' : `Review ${open}`
      }}</v-btn>
    </template>
    <span v-if="keepsNothing" class="unsafe"
      >This browser stores nothing. Stay on this page until everything is saved.</span
    >
    <ChangedByTwo v-if="looking && crossed" :parcel="crossed" @close="looking = false" />
    <NotAccepted v-else-if="looking" @close="looking = false" />
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
.otherPerson,
.stuck,
.unsafe {
  color: rgb(var(--v-theme-error));
}
.reason {
  max-width: 28ch;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
