<script setup lang="ts">
import type { SpeechPlace } from '#contract/speech';
import { useSpeechSettings } from '../session/speech-settings.ts';

/** The sentence by which a person lets their voice or their words go somewhere else, and takes it back. */
defineProps<{ place: SpeechPlace }>();
defineEmits<{ agree: [place: SpeechPlace, agreed: boolean] }>();

const settings = useSpeechSettings();
</script>

<template>
  <label class="tick">
    <input
      type="checkbox"
      :checked="settings.hasAgreed(place)"
      @change="$emit('agree', place, ($event.target as HTMLInputElement).checked)"
    />
    <span><slot /></span>
  </label>
</template>
