<script setup lang="ts">
import type { SpeechPlace, SpeechSettings } from '#contract/speech';
import { computed, ref } from 'vue';
import PageFrame from '../shell/PageFrame.vue';
import { useSpeechSettings } from '../session/speech-settings.ts';
import StateNote from '../shell/StateNote.vue';
import { useDeed } from '../shell/use-deed.ts';
import { useLoaded } from '../shell/use-loaded.ts';
import AgreementBox from './AgreementBox.vue';
import BrowserListening from './BrowserListening.vue';
import LanguagePick from '../transcript/LanguagePick.vue';
import RoomOnServer from './RoomOnServer.vue';
import { languageName, listOf } from '../wording/format.ts';

/** What is spoken, who writes it down and translates it, and where voice and words go. */
const store = useSpeechSettings();
const { error, load } = useLoaded(() => store.load());
const settings = computed(() => store.settings);
const { problem, attempt } = useDeed();
/** Drawn anew after a refusal, so that a box does not stay ticked that the server did not take. */
const attempts = ref(0);
const own = computed(() => settings.value?.language ?? settings.value?.courses[0]?.language ?? 'en');

async function go(deed: Promise<void>): Promise<void> {
  if (!(await attempt(() => deed))) attempts.value++;
}

const languages = ({ languages: tags }: SpeechSettings['engines'][number]): string =>
  tags ? listOf(tags.map(languageName)) : 'decided by the server';
const agree = (place: SpeechPlace, agreed: boolean): Promise<void> => go(store.agree(place, agreed));
</script>

<template>
  <PageFrame title="Voice and words">
    <StateNote v-if="!settings" :busy="!error" :error="error" @retry="load" />
    <div v-else :key="attempts">
      <p v-if="problem" class="refused" role="alert">{{ problem }}</p>
      <section aria-labelledby="spoken">
        <h2 id="spoken">What you speak</h2>
        <LanguagePick
          label="You, wherever you teach"
          none="as the course says"
          :model-value="settings.language"
          @update:model-value="go(store.speakAlways($event))"
        />
        <LanguagePick
          v-for="course in settings.courses"
          :key="course.id"
          :label="`All teachers of ${course.title}`"
          :model-value="course.language"
          @update:model-value="go(store.speakInCourse(course.id, $event ?? 'en'))"
        />
        <p class="quiet">
          Words of {{ listOf(settings.aligned.map(languageName)) }} recordings are timed by their sound; in other
          languages the timing is estimated from the pauses, and marked as approximate.
        </p>
      </section>
      <section aria-labelledby="written">
        <h2 id="written">Who writes it down</h2>
        <p class="quiet">
          These are tried in turn, and the first that is available makes a draft. You can always type the words yourself
          while you listen.
        </p>
        <v-table>
          <thead>
            <tr>
              <th scope="col">Engine</th>
              <th scope="col">Languages</th>
              <th scope="col">Times of words</th>
              <th scope="col">Your voice goes to</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <th scope="row">This browser, while you speak</th>
              <td colspan="3">
                <BrowserListening :language="own" @agree="agree" />
              </td>
            </tr>
            <tr v-for="engine in settings.engines" :key="engine.name">
              <th scope="row">{{ engine.name }}</th>
              <td>{{ languages(engine) }}</td>
              <td>{{ engine.wordTimes ? 'from the engine' : 'aligned here' }}</td>
              <td>
                <template v-if="engine.soundGoesTo === 'this server'">this server, nowhere else</template>
                <AgreementBox v-else place="speech server" @agree="agree"
                  >another server. I agree that my recordings are sent there to be written down.</AgreementBox
                >
              </td>
            </tr>
          </tbody>
        </v-table>
      </section>
      <section aria-labelledby="translated">
        <h2 id="translated">Who translates the words</h2>
        <v-table>
          <thead>
            <tr>
              <th scope="col">Translator</th>
              <th scope="col">Your words go to</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="translator in settings.translators" :key="translator.name">
              <th scope="row">{{ translator.name }}</th>
              <td>
                <template v-if="translator.textGoesTo === 'this server'">this server, nowhere else</template>
                <AgreementBox v-else place="translation server" @agree="agree"
                  >another server. I agree that transcripts are sent there when I press Translate.</AgreementBox
                >
              </td>
            </tr>
          </tbody>
        </v-table>
      </section>
      <section v-if="settings.missing.length > 0" aria-labelledby="missing">
        <h2 id="missing">What this server could have</h2>
        <p class="quiet">The person who runs the server can add these there.</p>
        <dl>
          <template v-for="{ name, how } in settings.missing" :key="name">
            <dt>{{ name }}</dt>
            <dd>
              <code>{{ how }}</code>
            </dd>
          </template>
        </dl>
      </section>
      <RoomOnServer />
    </div>
  </PageFrame>
</template>

<style scoped>
:deep(section) {
  margin-bottom: 36px;
}
:deep(h2) {
  margin-bottom: 8px;
  font-size: 17px;
  font-weight: 650;
}
.quiet {
  max-width: 68ch;
  margin: 4px 0;
}
.v-table {
  margin-top: 8px;
  background: transparent;
}
th,
td {
  padding: 8px 12px 8px 0;
  text-align: left;
  vertical-align: top;
  border-bottom: 1px solid var(--hairline);
}
tbody th {
  width: 15rem;
  font-weight: 600;
}
dl {
  display: grid;
  grid-template-columns: minmax(0, 20rem) minmax(0, 1fr);
  gap: 6px 16px;
  margin-top: 8px;
}
code {
  font-size: 13px;
  overflow-wrap: anywhere;
}
</style>
