<script setup lang="ts">
import type { SpeechPlace } from '#contract/speech';
import { ref, watch } from 'vue';
import { installLanguage, listeningPlace, type ListeningPlace } from '../recorder/recognition.ts';
import { useDeviceDictation } from '../recorder/use-dictation.ts';
import AgreementBox from './AgreementBox.vue';
import { languageName } from '../wording/format.ts';

/** What this browser itself could write down while somebody speaks, and whether it may. */
const props = defineProps<{ language: string }>();
defineEmits<{ agree: [place: SpeechPlace, agreed: boolean] }>();

const onDevice = useDeviceDictation();
const place = ref<ListeningPlace>();
const fetching = ref(false);
const failed = ref(false);

watch(
  () => props.language,
  async (language) => (place.value = await listeningPlace(language)),
  { immediate: true },
);

async function fetchIt(): Promise<void> {
  fetching.value = true;
  failed.value = !(await installLanguage(props.language).catch(() => false));
  place.value = await listeningPlace(props.language);
  fetching.value = false;
}
</script>

<template>
  <p v-if="place === undefined" class="quiet">Checking what this browser can do …</p>
  <v-checkbox
    v-else-if="place === 'device'"
    v-model="onDevice"
    class="tick"
    label="Write down what I say while I speak. The sound stays on this computer."
  />
  <template v-else-if="place === 'download'">
    <p class="can">This browser can do it on your computer once it has downloaded {{ languageName(language) }}.</p>
    <v-btn size="small" variant="outlined" :loading="fetching" @click="fetchIt">Fetch it</v-btn>
    <p v-if="failed" class="refused" role="alert">The download failed. Check your network and try again.</p>
  </template>
  <AgreementBox v-else-if="place === 'cloud'" place="browser cloud" @agree="(...said) => $emit('agree', ...said)"
    >I agree that, while I record, this browser sends my voice to a service of its maker, outside of the school, to be
    written down.</AgreementBox
  >
  <p v-else class="quiet">This browser cannot listen to {{ languageName(language) }}.</p>
</template>

<style scoped>
.can {
  margin-bottom: 6px;
}
</style>
