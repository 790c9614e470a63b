import type { Span } from '#core/audio';
import type { Word } from '#core/transcript';

/** A recording, ready to be listened to. */
export interface Clip {
  /** As it was kept. */
  bytes: Uint8Array;
  mediaType: string;
  /** The same as PCM of 16 bits, one channel, 16 kHz. */
  wav: Uint8Array;
  /** Seconds. */
  duration: number;
  /** What can be listened to on its own, one after the other; all of it where that is left out. */
  stretches?: readonly Span[];
  /** BCP 47 tag of what is probably spoken. */
  language: string;
  /** Nobody waits for the words any more. */
  signal?: AbortSignal | undefined;
  /** Told now and then how much has been listened to, from 0 to 1, by engines that know. */
  onProgress?: ((share: number) => void) | undefined;
}

/** What an engine heard. */
export interface Heard {
  language: string;
  text: string;
  /** Empty where the engine tells no times. */
  words: Word[];
}

/** Something that can hear words in a recording. It says of itself what it can do and where the sound goes. */
export interface Transcriber {
  name: string;
  /** BCP 47 primary tags; undefined where it knows by itself what it cannot do. */
  languages: readonly string[] | undefined;
  wordTimes: boolean;
  soundGoesTo: 'this server' | 'another server';
  /**
   * What was said, or undefined where no words were made out.
   * @throws SpeechError
   */
  transcribe(clip: Clip): Promise<Heard | undefined>;
}

export const knows = ({ languages }: Transcriber, language: string): boolean =>
  languages === undefined || languages.includes(language.toLowerCase().split('-')[0]!);
