<script setup lang="ts">
import type { Slip } from '#contract/joining';
import { inviteTeacher } from '#contract/roster';
import { ref } from 'vue';
import { call } from '../session/api.ts';
import { useDeed } from '../shell/use-deed.ts';

/** Somebody else who teaches the course. Who is new to the school gets a slip. */
const props = defineProps<{ course: string }>();
const emit = defineEmits<{ slip: [slip: Slip]; changed: []; mailed: [name: string]; invited: [name: string] }>();

const name = ref('');
const mail = ref('');
const { problem: refused, attempt } = useDeed();

async function invite(): Promise<void> {
  await attempt(async () => {
    const { slip, mailed, invited } = await call(inviteTeacher, {
      params: { course: props.course },
      body: { name: name.value.trim(), mail: mail.value.trim() },
    });
    if (mailed) emit('mailed', name.value.trim());
    if (invited) emit('invited', name.value.trim());
    name.value = mail.value = '';
    emit('changed');
    if (slip) emit('slip', slip);
  });
}
</script>

<template>
  <form class="one-line" @submit.prevent="invite">
    <v-text-field v-model="name" label="Name of another teacher" density="compact" maxlength="200" autocomplete="off" />
    <v-text-field v-model="mail" label="Mail, if there is one" density="compact" maxlength="200" autocomplete="off" />
    <v-btn type="submit" variant="outlined" :disabled="name.trim() === ''">Invite</v-btn>
    <p v-if="refused" class="refused" role="alert">{{ refused }}</p>
  </form>
</template>
