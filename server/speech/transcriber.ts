import type { Transcript } from '#core/transcript';
import type { Microphone } from '../../contract/sound.ts';

export interface Clip {
  bytes: Buffer;
  mediaType: string;
  /** Seconds. */
  duration: number;
  microphone: Microphone;
}

/** Something that can hear words in a recording. It says of itself what it can do and where the sound goes. */
export interface Transcriber {
  name: string;
  /** BCP 47 tags. */
  languages: readonly string[];
  wordTimes: boolean;
  soundGoesTo: 'this server' | 'this browser' | 'another server';
  /** The draft of a transcript, or undefined where no words were made out. */
  transcribe(clip: Clip): Promise<Transcript | undefined>;
}
