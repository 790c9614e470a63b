import { createGlobalState, useLocalStorage } from '@vueuse/core';
import type { Recording } from '#contract/recordings';

/** Languages that are offered first; any other can be typed as a tag. */
export const COMMON_LANGUAGES = [
  'en', 'fr', 'es', 'de', 'pt', 'it', 'pl', 'uk', 'ru', 'tr', 'ar', 'fa', 'ur', 'hi', 'bn', 'zh', 'ja', 'ko', 'vi', 'so', 'sw',
]; // prettier-ignore

/** The language that a reader wants words in, on this browser; empty: the one that was spoken. */
export const useReadingLanguage = createGlobalState(() => useLocalStorage('reading-language', ''));

/** The words of a recording in a language, where it has them; those that were spoken otherwise. */
export function wordsIn(
  { transcript, translations }: Pick<Recording, 'transcript' | 'translations'>,
  language: string,
): { language: string; text: string } | null {
  return translations.find((one) => one.language === language) ?? transcript;
}
