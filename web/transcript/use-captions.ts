import { cuesOf, translatedWords } from '#core/transcript';
import type { Recording } from '#contract/recordings';
import { createGlobalState, useLocalStorage } from '@vueuse/core';
import { computed, type ComputedRef } from 'vue';
import { usePlayer } from '../player/player.ts';
import { useReadingLanguage, wordsIn } from './language.ts';

/** The caption of a moment. */
export interface Caption {
  language: string;
  lines: string[];
}

/** Whether one wants captions. It is remembered. */
export const useCaptionsShown = createGlobalState(() => useLocalStorage('captions', true));

/** Captions of a recording that plays, in the language of the reader. */
export function useCaptions(recording: () => Recording | undefined): { captions: ComputedRef<Caption | undefined> } {
  const player = usePlayer();
  const reading = useReadingLanguage();
  const wanted = useCaptionsShown();
  const cues = computed(() => {
    const { transcript, translations } = recording() ?? {};
    if (!transcript || !translations) return undefined;
    const shown = wordsIn({ transcript, translations }, reading.value) ?? transcript;
    const words = shown === transcript ? transcript.words : translatedWords(shown.text, transcript.words);
    return { language: shown.language, cues: cuesOf(words), text: shown.text };
  });
  const captions = computed((): Caption | undefined => {
    if (!wanted.value || !cues.value || player.current.value !== recording()?.id) return undefined;
    const { language, cues: all, text } = cues.value;
    // Words without times stand there as a whole.
    if (all.length === 0) return { language, lines: [text] };
    const now = player.position.value;
    const cue = all.find(({ start, end }) => now >= start && now < end);
    return cue && { language, lines: cue.lines };
  });
  return { captions };
}
