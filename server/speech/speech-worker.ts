import { stretches, writeWav, type Span } from '#core/audio';
import type { Word } from '#core/transcript';
import { setPriority } from 'node:os';
import { setImmediate as breath } from 'node:timers/promises';
import { workerData } from 'node:worker_threads';
import { answerTasks } from '../threads/asked-thread.ts';
import { align, type Aligned, type Said } from './aligner.ts';
import { decodeSpeech } from './decode.ts';
import { SPEECH_RATE } from './speech-rate.ts';
import { SpeechError } from './speech-error.ts';
import { voiceSeconds } from './voice-seconds.ts';

const NICENESS = 15;

export interface Listened {
  /** PCM of 16 bits, one channel, at SPEECH_RATE. */
  wav: Uint8Array;
  /** Seconds. */
  duration: number;
  /** Seconds in which somebody speaks. */
  voice: number;
  /** What can be listened to on its own, one after the other. */
  stretches: Span[];
}

export type SpeechTask = { type: 'listen'; bytes: Uint8Array } | { type: 'align'; bytes: Uint8Array; said: Said };

export interface SpeechThreadData {
  /** Whether all others come first. */
  background: boolean;
}

/** What the decoder says about a recording; null where something broke. */
export type SpeechRefusal = { message: string; lasting: boolean } | null;

// The desk is answered first. Elsewhere than on Linux this would be about the whole server.
if ((workerData as SpeechThreadData).background && process.platform === 'linux') setPriority(NICENESS);

answerTasks<SpeechTask, SpeechRefusal>(
  (task, alive) =>
    run(task, async () => {
      alive();
      await breath();
    }),
  (error) => (error instanceof SpeechError ? { message: error.message, lasting: error.lasting } : null),
);

async function run(task: SpeechTask, turn: () => Promise<void>): Promise<Listened | Aligned> {
  const samples = await decodeSpeech(task.bytes);
  if (task.type === 'align') return rounded(await align(samples, task.said, turn));
  return {
    wav: writeWav(samples, SPEECH_RATE),
    duration: samples.length / SPEECH_RATE,
    voice: await voiceSeconds(samples),
    stretches: stretches(samples, SPEECH_RATE, LONGEST_STRETCH),
  };
}

/** Seconds: what engines are made for, and long enough for them to know a voice. */
const LONGEST_STRETCH = 60;

const milliseconds = (seconds: number): number => Math.round(seconds * 1000) / 1000;

const rounded = ({ words, approximate }: Aligned): Aligned => ({
  words: words.map((word: Word) => ({ ...word, start: milliseconds(word.start), end: milliseconds(word.end) })),
  approximate,
});
