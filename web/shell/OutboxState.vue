<script setup lang="ts">
import { mdiAlertCircleOutline, mdiCheck, mdiCloudOffOutline, mdiCloudUploadOutline } from '@mdi/js';
import { computed } from 'vue';
import { useOutbox } from '../outbox/outbox.ts';

const outbox = useOutbox();

const WORDS = {
  saved: { icon: mdiCheck, text: 'Saved' },
  saving: { icon: mdiCloudUploadOutline, text: 'Saving …' },
  waiting: { icon: mdiCloudOffOutline, text: 'Server away: kept here, sent later' },
  signedOut: { icon: mdiCloudOffOutline, text: 'Signed out: kept here until you sign in again' },
  refused: { icon: mdiAlertCircleOutline, text: 'Not accepted' },
} as const;

const words = computed(() => WORDS[outbox.state.value]);
const reasons = computed(() => outbox.parcels.value.flatMap(({ refused }) => refused ?? []));
</script>

<template>
  <span class="outbox" role="status" :class="outbox.state.value">
    <v-icon :icon="words.icon" size="16" aria-hidden="true" />
    {{ words.text }}
    <template v-if="outbox.state.value === 'refused'">
      <span class="reason">{{ reasons[0] }}</span>
      <v-btn size="x-small" variant="outlined" @click="outbox.dropRefused()">Understood</v-btn>
    </template>
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
.refused {
  color: rgb(var(--v-theme-error));
}
.reason {
  max-width: 36ch;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
