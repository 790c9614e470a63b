import type { Word } from '#core/transcript';
import { z } from 'zod';
import { setTimeout as sleep } from 'node:timers/promises';
import type { SpeechServerSettings } from '../settings.ts';
import { speechErrors } from './speech-error.ts';
import type { Clip, Heard, Transcriber } from './transcriber.ts';

interface Options {
  /** Milliseconds between one try and the next; no more tries than pauses and one. */
  pauses?: readonly number[];
  /** Milliseconds, for so many seconds of sound. */
  patience?: (duration: number) => number;
}

const PAUSES = [1_000, 4_000];
const patient = (duration: number): number => Math.max(60_000, duration * 2_000);
/** No transcript of three hours is longer than this. */
const MOST_CHARACTERS = 2_000_000;

const Answer = z.object({
  text: z.string(),
  language: z.string().optional(),
  words: z
    .array(
      z.object({
        word: z.string(),
        start: z.number().min(0),
        end: z.number().min(0),
        probability: z.number().min(0).max(1).optional(),
      }),
    )
    .optional(),
});

/** A speech server of the school's own: any that answers `POST /v1/audio/transcriptions` as many do (common practice). */
export function speechServer(
  { address, key, model }: SpeechServerSettings,
  { pauses = PAUSES, patience = patient }: Options = {},
): Transcriber {
  const url = new URL('/v1/audio/transcriptions', address);
  return {
    name: `Speech server at ${url.host}`,
    languages: undefined,
    wordTimes: true,
    soundGoesTo: 'another server',
    async transcribe(clip) {
      const response = await insist(() => ask(url, key, form(clip, model), patience(clip.duration)), pauses);
      return heardIn(response, clip);
    },
  };
}

function form({ wav, language }: Clip, model: string): FormData {
  const data = new FormData();
  data.set('file', new Blob([new Uint8Array(wav)], { type: 'audio/wav' }), 'remark.wav');
  data.set('model', model);
  data.set('language', language.split('-')[0]!);
  data.set('response_format', 'verbose_json');
  data.append('timestamp_granularities[]', 'word');
  return data;
}

async function ask(url: URL, key: string | undefined, body: FormData, patience: number): Promise<unknown> {
  let response: Response;
  try {
    response = await fetch(url, {
      method: 'POST',
      body,
      redirect: 'error',
      signal: AbortSignal.timeout(patience),
      ...(key !== undefined && { headers: { Authorization: `Bearer ${key}` } }),
    });
  } catch (error) {
    throw (error as Error).name === 'TimeoutError'
      ? speechErrors.tooSlow('The speech server')
      : speechErrors.serverAway(url.host);
  }
  const lasting = response.status < 500 && ![408, 425, 429].includes(response.status);
  if (!response.ok) throw speechErrors.serverRefused(response.status, lasting);
  try {
    const text = await response.text();
    return text.length > MOST_CHARACTERS ? undefined : JSON.parse(text);
  } catch {
    return undefined;
  }
}

async function insist(once: () => Promise<unknown>, pauses: readonly number[]): Promise<unknown> {
  for (const pause of pauses) {
    try {
      return await once();
    } catch (error) {
      if ((error as { lasting?: boolean }).lasting) throw error;
      await sleep(pause);
    }
  }
  return once();
}

function heardIn(response: unknown, { duration, language }: Clip): Heard | undefined {
  const answer = Answer.safeParse(response);
  if (!answer.success) throw speechErrors.serverNonsense();
  const { text, words = [] } = answer.data;
  if (text.trim() === '') return undefined;
  return { language, text: text.trim(), words: withTimes(text, words, duration) };
}

type Told = NonNullable<z.infer<typeof Answer>['words']>;

/** The words with the punctuation of the text; none where times and text do not go together. */
function withTimes(text: string, told: Told, duration: number): Word[] {
  const words = told.map(({ word, start, end, probability }): Word => ({
    word: word.trim(),
    start,
    end,
    ...(probability !== undefined && { confidence: probability }),
  }));
  const inOrder = words.every(
    ({ start, end }, i) => start <= end && end <= duration + 1 && start >= (words[i - 1]?.start ?? 0),
  );
  if (!inOrder || words.length === 0) return [];
  const tokens = text.trim().split(/\s+/u);
  if (tokens.length !== words.length) return [];
  return words.map((word, index) => ({ ...word, word: tokens[index]! }));
}
