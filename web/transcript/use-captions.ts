import { cuesOf, translatedWords } from '#core/transcript';
import type { Recording } from '#contract/recordings';
import { computed, type ComputedRef } from 'vue';
import { usePlayer } from '../player/player.ts';
import { useReadingLanguage, wordsIn } from './language.ts';

/** The caption of a moment. */
export interface Caption {
  language: string;
  lines: string[];
}

/** Captions under the picture of a recording that plays, in the language of the reader. */
export function useCaptions(recording: () => Recording): { captions: ComputedRef<Caption | undefined> } {
  const player = usePlayer();
  const reading = useReadingLanguage();
  const cues = computed(() => {
    const { sound, transcript, translations } = recording();
    if (!sound.picture || !transcript) return undefined;
    const shown = wordsIn({ transcript, translations }, reading.value) ?? transcript;
    const words = shown === transcript ? transcript.words : translatedWords(shown.text, transcript.words);
    return { language: shown.language, cues: cuesOf(words), text: shown.text };
  });
  const captions = computed((): Caption | undefined => {
    if (!cues.value || player.current.value !== recording().id) return undefined;
    const { language, cues: all, text } = cues.value;
    // Words without times stand there as a whole.
    if (all.length === 0) return { language, lines: [text] };
    const now = player.position.value;
    const cue = all.find(({ start, end }) => now >= start && now < end);
    return cue && { language, lines: cue.lines };
  });
  return { captions };
}
