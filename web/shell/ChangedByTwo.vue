<script setup lang="ts">
import { computedAsync } from '@vueuse/core';
import { useOutbox } from '../outbox/outbox.ts';
import type { Parcel } from '../outbox/parcel.ts';

/** What stands there now beside what the person would put there: they choose. */
const props = defineProps<{ parcel: Parcel }>();
const emit = defineEmits<{ close: [] }>();

const outbox = useOutbox();
const compared = computedAsync(() => outbox.compare(props.parcel), []);

async function settle(whose: 'theirs' | 'mine'): Promise<void> {
  await outbox.settleWith(props.parcel, whose);
  emit('close');
}
</script>

<template>
  <v-dialog :model-value="true" max-width="640" aria-label="Changed by two people" @update:model-value="emit('close')">
    <v-card class="crossed">
      <h2>Changed by two people</h2>
      <p>While you changed this, somebody else did too. Which one should stay?</p>
      <dl v-for="{ what, now, mine } in compared" :key="what">
        <dt>{{ what }}, as it is now</dt>
        <dd>{{ now }}</dd>
        <dt>{{ what }}, as you had it</dt>
        <dd>{{ mine }}</dd>
      </dl>
      <div class="choice">
        <v-btn variant="outlined" @click="settle('theirs')">Leave it as it is now</v-btn>
        <v-btn variant="flat" color="primary" @click="settle('mine')">Put in what I had</v-btn>
      </div>
    </v-card>
  </v-dialog>
</template>

<style scoped>
.crossed {
  padding: 24px;
  white-space: normal;
}
.crossed dt {
  margin-top: 12px;
  color: var(--quiet);
  font-size: 13px;
}
.crossed dd {
  overflow-wrap: anywhere;
  white-space: pre-line;
}
.choice {
  display: flex;
  justify-content: flex-end;
  gap: 10px;
  margin-top: 20px;
}
</style>
