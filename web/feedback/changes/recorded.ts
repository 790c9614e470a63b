import { NewRecording, type Recording } from '#contract/recordings';
import type { NewSound, Sound } from '#contract/sound';
import { KeptSound } from '../../outbox/kept.ts';

/** A recording that was made here, on its way to the server. */
export const KeptRecording = NewRecording.extend({ sound: KeptSound });

/** What the wire gets of a sound; its bytes travel beside it. */
export const newSound = ({ duration, peaks, microphone, picture }: KeptSound): NewSound => ({
  ...{ duration, peaks, microphone, picture },
});

export const soundOf = ({ sha256, duration, peaks, picture }: KeptSound): Sound => ({
  ...{ sha256, duration, peaks, picture },
});

/** The recording as the server will make it. */
export const recordingOf = (
  { id, sound, edit, draft }: typeof KeptRecording._output,
  madeAt: string,
  language = 'en',
): Recording => ({
  id,
  sound: soundOf(sound),
  edit,
  language: draft?.language ?? language,
  transcript: draft ? { ...draft, words: [], source: 'machine', approximate: true, read: false } : null,
  translations: [],
  speech: null,
  heard: null,
  madeAt,
});
