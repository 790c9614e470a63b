<script setup lang="ts">
import type { Recording } from '#contract/recordings';
import { computed } from 'vue';
import ChoiceMenu from '../shell/ChoiceMenu.vue';
import { recordingUrl } from '../player/media-url.ts';
import { useReadingLanguage, wordsIn } from './language.ts';
import TranscriptText from './TranscriptText.vue';
import { languageName } from '../wording/format.ts';

/** The words of a recording as they are read, in the language that the reader picks where there are several. */
const props = defineProps<{ recording: Recording; live?: boolean }>();

const reading = useReadingLanguage();
const languages = computed(() => props.recording.translations.map(({ language }) => language));
const spoken = computed(() => props.recording.transcript);
const shown = computed(() => wordsIn(props.recording, reading.value));
const translation = computed(() =>
  shown.value === spoken.value ? undefined : props.recording.translations.find((one) => one === shown.value),
);
const pick = computed({
  get: () => (languages.value.includes(reading.value) ? reading.value : ''),
  set: (language) => (reading.value = language),
});
</script>

<template>
  <template v-if="spoken">
    <div v-if="languages.length > 0" class="fine" @click.stop>
      Words in
      <ChoiceMenu
        v-model="pick"
        label="Words in"
        :choices="[
          { title: `${languageName(spoken.language)} (spoken)`, value: '' },
          ...languages.map((language) => ({ title: languageName(language), value: language })),
        ]"
      />
    </div>
    <p v-if="translation" class="words" :lang="translation.language" dir="auto">{{ translation.text }}</p>
    <TranscriptText v-else :id="recording.id" :url="recordingUrl(recording)" :transcript="spoken" :live="live" />
    <p v-if="translation?.source === 'machine'" class="fine">Translated by a machine ({{ translation.engine }})</p>
  </template>
</template>

<style scoped>
.words {
  margin-top: 4px;
  line-height: 1.45;
  overflow-wrap: anywhere;
}
</style>
