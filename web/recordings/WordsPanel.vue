<script setup lang="ts">
import { isDraft } from '#core/transcript';
import { urlOf } from '#contract/endpoint';
import { recordingCaptions, type Recording } from '#contract/recordings';
import { MOST_SAID } from '#contract/transcripts';
import { mdiTranslate } from '@mdi/js';
import { computed, ref } from 'vue';
import FileInput from '../shell/FileInput.vue';
import { useDeed } from '../shell/use-deed.ts';
import { COMMON_LANGUAGES } from '../transcript/language.ts';
import LanguageSelect from '../transcript/LanguageSelect.vue';
import EarlierWords from './EarlierWords.vue';
import { useRecordingActions } from './recording-actions.ts';
import { languageName } from '../wording/format.ts';

/** The languages of a remark's words, and the way in and out for captions. */
const props = defineProps<{ recording: Recording }>();

const actions = useRecordingActions();
const transcript = computed(() => props.recording.transcript);
const spoken = computed(() => actions.languageOf(props.recording));
const added = ref<string>();
const working = ref<string>();
const { problem, attempt } = useDeed();
const looksBack = ref(false);
const languages = computed(() => [
  ...new Set([...props.recording.translations.map(({ language }) => language), ...(added.value ? [added.value] : [])]),
]);
const others = computed(() =>
  COMMON_LANGUAGES.filter((language) => language !== spoken.value && !languages.value.includes(language)),
);
const textIn = (language: string): string =>
  props.recording.translations.find((one) => one.language === language)?.text ?? '';
const engineOf = (language: string): string =>
  props.recording.translations.find((one) => one.language === language)?.engine ?? '';

async function go(name: string, deed: () => Promise<void>): Promise<void> {
  working.value = name;
  await attempt(deed);
  working.value = undefined;
}

async function write(language: string, text: string): Promise<void> {
  if (text.trim() !== textIn(language)) await actions.translate(props.recording, language, text.trim());
}

async function speaksIn(language: string): Promise<void> {
  const { text, read } = transcript.value ?? { text: '', read: true };
  if (transcript.value && text && !isDraft(transcript.value))
    await actions.mend(props.recording, { text, read, language });
  else await go('listen', () => actions.listenAgain(props.recording, language));
}

const take = ([file]: [File, ...File[]]): Promise<void> =>
  go('import', async () => actions.importCaptions(props.recording, spoken.value, await file.text()));
</script>

<template>
  <section class="panel" aria-label="Languages and captions" @click.stop>
    <LanguageSelect
      class="spoken"
      label="Spoken in"
      :model-value="spoken"
      :languages="[...new Set([spoken, ...COMMON_LANGUAGES])]"
      @update:model-value="speaksIn"
    />
    <div v-for="language in languages" :key="language" class="translation">
      <label :for="`words-${recording.id}-${language}`">{{ languageName(language) }}</label>
      <v-btn
        size="x-small"
        :prepend-icon="mdiTranslate"
        :loading="working === language"
        :disabled="!transcript?.text"
        @click="go(language, () => actions.translateByMachine(recording, language))"
        >Translate</v-btn
      >
      <v-textarea
        :id="`words-${recording.id}-${language}`"
        :model-value="textIn(language)"
        :lang="language"
        dir="auto"
        rows="2"
        :maxlength="MOST_SAID"
        @change="write(language, ($event.target as HTMLTextAreaElement).value)"
      />
      <p v-if="engineOf(language)" class="quiet">by {{ engineOf(language) }}; read it before you return it</p>
    </div>
    <LanguageSelect
      :key="added ?? ''"
      class="spoken"
      label="Add words in"
      :model-value="''"
      none="another language"
      :languages="others"
      @update:model-value="added = $event"
    />
    <p class="line">
      <template v-if="transcript && transcript.words.length > 0">
        Captions:
        <a
          v-for="format in ['vtt', 'srt', 'json'] as const"
          :key="format"
          :href="urlOf(recordingCaptions, { recording: recording.id, file: `${spoken}.${format}` })"
          >{{ { vtt: 'WebVTT', srt: 'SRT', json: 'JSON' }[format] }}</a
        >
      </template>
      <FileInput
        v-slot="{ open }"
        label="Captions or text as a file"
        accept=".vtt,.srt,.txt,text/plain,text/vtt"
        @choose="take"
      >
        <button type="button" class="file" @click="open">Import captions or text</button>
      </FileInput>
    </p>
    <button type="button" class="earlier" :aria-expanded="looksBack" @click="looksBack = !looksBack">
      Earlier words
    </button>
    <EarlierWords v-if="looksBack" :recording="recording" />
    <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
  </section>
</template>

<style scoped>
.panel {
  margin-top: 6px;
  padding-top: 6px;
  border-top: 1px solid var(--hairline);
  font-size: 13px;
}
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin-top: 4px;
}
.spoken {
  margin-top: 8px;
}
.translation {
  display: grid;
  grid-template-columns: 1fr auto;
  align-items: center;
  margin-top: 6px;
}
.translation .v-textarea,
.translation .quiet {
  grid-column: 1 / -1;
}
.earlier {
  margin-top: 6px;
}
.earlier,
.file {
  text-decoration: underline dotted;
  cursor: pointer;
}
a {
  color: inherit;
  text-decoration: underline;
}
</style>
