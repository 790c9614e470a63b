import type { Span } from '#core/audio';
import { shiftWords, spoken, textOfWords, type Word } from '#core/transcript';
import { spawn } from 'node:child_process';
import { existsSync } from 'node:fs';
import { mkdtemp, readdir, readFile, rm, stat, writeFile } from 'node:fs/promises';
import { setPriority, tmpdir } from 'node:os';
import path from 'node:path';
import { SPEECH_RATE } from './speech-rate.ts';
import { installed } from './installed.ts';
import { speechErrors } from './speech-error.ts';
import type { Clip, Heard, Transcriber } from './transcriber.ts';

const MODEL = '/usr/share/pocketsphinx/model/en-us';
export const HOW_TO_GET_POCKETSPHINX = 'apt-get install pocketsphinx pocketsphinx-en-us';

/** It listens in about half of the time that the sound lasts; on a busy machine in more. */
const PATIENCE = 8;
const LEAST_PATIENCE = 60;
/** How often it is looked how far it is. It writes down its words some dozens at a time. */
const LOOK_MILLISECONDS = 2000;
const FOLDERS = 'vivid-speech-';
/** Longer than the longest recording can take. */
const FORGOTTEN_MILLISECONDS = 24 * 3600_000;
/** As nice as can be: the desk comes first. */
const NICENESS = 19;

interface Options {
  /** The program to run; Debian's where it is left out. */
  program?: string | undefined;
  /** Seconds, for so many seconds of sound. */
  patience?: (duration: number) => number;
}

/**
 * English dictation on this machine, without network: CMU PocketSphinx with Debian's model, as a process of its own, so that
 * whatever happens to it never touches the server. Undefined where it is not installed.
 */
export function pocketsphinx({ program = installed('pocketsphinx_batch'), patience = usual }: Options = {}):
  Transcriber | undefined {
  if (!program || !existsSync(MODEL)) return undefined;
  return {
    name: 'PocketSphinx',
    languages: ['en'],
    wordTimes: true,
    soundGoesTo: 'this server',
    transcribe: (clip) => listen(program, clip, patience(clip.duration)),
  };
}

const usual = (duration: number): number => Math.max(LEAST_PATIENCE, duration * PATIENCE);

async function listen(program: string, clip: Clip, patience: number): Promise<Heard | undefined> {
  const { wav, duration, stretches = [{ start: 0, end: duration }], signal, onProgress } = clip;
  await removeForgotten();
  const folder = await mkdtemp(path.join(tmpdir(), FOLDERS));
  const heardUntil = async (): Promise<void> => {
    const last = (await wordsIn(folder, stretches)).at(-1);
    if (last) onProgress?.(Math.min(1, last.end / duration));
  };
  const looking = setInterval(() => void heardUntil().catch(() => undefined), LOOK_MILLISECONDS);
  try {
    for (const [index, stretch] of stretches.entries())
      await writeFile(path.join(folder, `${index}.raw`), samplesOf(wav, stretch), { mode: 0o600 });
    await writeFile(path.join(folder, 'list'), stretches.map((_, index) => `${index}\n`).join(''));
    await run(program, argumentsFor(folder), patience, signal);
    const words = await wordsIn(folder, stretches);
    return words.length === 0 ? undefined : { language: 'en', text: textOfWords(words), words };
  } finally {
    clearInterval(looking);
    await rm(folder, { recursive: true, force: true });
  }
}

async function wordsIn(folder: string, stretches: readonly Span[]): Promise<Word[]> {
  const ctm = await readFile(path.join(folder, 'words'), 'utf8').catch(() => '');
  return readWords(ctm).flatMap(({ stretch, word }) => {
    const from = stretches[stretch];
    return from ? shiftWords([word], from.start) : [];
  });
}

/** What a server that was killed while it listened has left behind goes: nobody's voice stays lying about. */
async function removeForgotten(): Promise<void> {
  const names = await readdir(tmpdir()).catch(() => []);
  for (const name of names.filter((one) => one.startsWith(FOLDERS))) {
    const folder = path.join(tmpdir(), name);
    const { mtimeMs } = await stat(folder).catch(() => ({ mtimeMs: Infinity }));
    if (mtimeMs > Date.now() - FORGOTTEN_MILLISECONDS) continue;
    // Another user of this machine removes their own.
    await rm(folder, { recursive: true, force: true }).catch(() => undefined);
  }
}

/** Bytes of the head of a WAV file, and of a sample. */
const HEAD = 44;
const SAMPLE = 2;

const samplesOf = (wav: Uint8Array, { start, end }: Span): Uint8Array => {
  const byte = (seconds: number): number => HEAD + Math.round(seconds * SPEECH_RATE) * SAMPLE;
  return wav.subarray(byte(start), byte(end));
};

/**
 * The program that reads a whole recording before it begins knows its mean spectrum (`cmn batch`) from the first word on, which
 * halves the errors of the one that listens as it reads. With its own removal of silence the times would be wrong.
 */
const argumentsFor = (folder: string): string[] => [
  ...['-ctl', path.join(folder, 'list'), '-cepdir', folder, '-cepext', '.raw', '-adcin', 'yes'],
  ...['-ctm', path.join(folder, 'words'), '-logfn', '/dev/null'],
  ...['-hmm', path.join(MODEL, 'en-us'), '-lm', path.join(MODEL, 'en-us.lm.bin')],
  ...['-dict', path.join(MODEL, 'cmudict-en-us.dict'), '-remove_silence', 'no', '-cmn', 'batch'],
];

function run(program: string, args: string[], patience: number, signal?: AbortSignal): Promise<void> {
  return new Promise((done, failed) => {
    const child = spawn(program, args, {
      stdio: 'ignore',
      killSignal: 'SIGKILL',
      ...(signal && { signal }),
    });
    let late = false;
    const timer = setTimeout(() => {
      late = true;
      child.kill('SIGKILL');
    }, patience * 1000);
    child.on('spawn', () => child.pid && niceness(child.pid));
    child.on('error', () => failed(speechErrors.engineDied('PocketSphinx')));
    child.on('close', (code) => {
      clearTimeout(timer);
      if (late) failed(speechErrors.tooSlow('PocketSphinx'));
      else if (code !== 0) failed(speechErrors.engineDied('PocketSphinx'));
      else done();
    });
  });
}

function niceness(pid: number): void {
  try {
    setPriority(pid, NICENESS);
  } catch {
    // It has ended already.
  }
}

/** NIST's CTM: `stretch 1 start duration word probability` a line. Silences and noises are in brackets, other pronunciations numbered. */
function readWords(ctm: string): { stretch: number; word: Word }[] {
  return ctm.split('\n').flatMap((line) => {
    const match = /^(\d+) 1 (\d+\.\d+) (\d+\.\d+) (\S+?)(?:\(\d+\))? (\d+\.\d+)$/u.exec(line.trim());
    if (!match || /^[<[+]/u.test(match[4]!) || spoken(match[4]!) === '') return [];
    const [stretch, start, duration] = match.slice(1, 4).map(Number) as [number, number, number];
    const end = start + duration + FRAME;
    return [{ stretch, word: { word: match[4]!, start, end, confidence: Math.min(1, Number(match[5])) } }];
  });
}

/** Its frames, in seconds: a word ends with the last frame it names. */
const FRAME = 0.01;
