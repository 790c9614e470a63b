<script setup lang="ts">
import type { SpeechPlace } from '#contract/speech';
import { useSpeechSettings } from '../session/speech-settings.ts';

/** The sentence by which a person lets their voice or their words go somewhere else, and takes it back. */
defineProps<{ place: SpeechPlace }>();
defineEmits<{ agree: [place: SpeechPlace, agreed: boolean] }>();

const settings = useSpeechSettings();
</script>

<template>
  <v-checkbox
    class="tick"
    :model-value="settings.hasAgreed(place)"
    @update:model-value="$emit('agree', place, $event === true)"
  >
    <template #label><slot /></template>
  </v-checkbox>
</template>
