import {
  agreeToPlace,
  readSpeechSettings,
  setCourseLanguage,
  setOwnLanguage,
  type SpeechPlace,
  type SpeechSettings,
} from '#contract/speech';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import { call } from './api.ts';
import { useSession } from './session.ts';

/** What the person who is signed in has settled about their voice and its words, and what the server has for it. */
export const useSpeechSettings = defineStore('speech-settings', () => {
  const session = useSession();
  const settings = shallowRef<SpeechSettings>();
  let owner: string | undefined;

  async function load(): Promise<void> {
    settings.value = await call(readSpeechSettings);
    owner = session.person?.id;
  }

  /** Loads them unless they are here already. */
  async function ensure(): Promise<void> {
    if (!settings.value || owner !== session.person?.id) await load();
  }

  /** What is probably spoken about works of a course. */
  const languageIn = (course: string): string =>
    settings.value?.language ?? settings.value?.courses.find(({ id }) => id === course)?.language ?? 'en';

  const hasAgreed = (place: SpeechPlace): boolean => settings.value?.agreements.includes(place) ?? false;

  return {
    settings,
    load,
    ensure,
    languageIn,
    hasAgreed,
    agree: async (place: SpeechPlace, agreed: boolean): Promise<void> => {
      settings.value = await call(agreeToPlace, { body: { place, agreed } });
    },
    speakAlways: async (language: string | null): Promise<void> => {
      settings.value = await call(setOwnLanguage, { body: { language } });
    },
    speakInCourse: async (course: string, language: string): Promise<void> => {
      settings.value = await call(setCourseLanguage, { params: { course }, body: { language } });
    },
  };
});
