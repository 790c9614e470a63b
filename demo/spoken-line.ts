export type Voice = 'rms' | 'slt' | 'awb';

/** What is said in the sample school. The words are spoken once by `make/voices.ts` and shipped as Opus. */
export interface SpokenLine {
  /** Names the file in `voices/`. */
  name: string;
  voice: Voice;
  text: string;
}
