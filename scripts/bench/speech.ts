import { spoken, textOfWords, tokens, wordErrors } from '#core/transcript';
import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { FEEDBACK } from '../../demo/remarks.ts';
import { align } from '../../server/speech/aligner.ts';
import { decodeSpeech } from '../../server/speech/decode.ts';
import { SPEECH_RATE } from '../../server/speech/speech-rate.ts';
import { hear } from '../../server/speech/hear.ts';
import { installed } from '../../server/speech/installed.ts';
import { HOW_TO_GET_POCKETSPHINX, pocketsphinx } from '../../server/speech/pocketsphinx.ts';
import { speechThread } from '../../server/speech/speech-thread.ts';
import { figure, round } from './figure.ts';

const CLIPS = 10;

const remarks = (count = CLIPS): string[] =>
  FEEDBACK.flatMap(({ remarks }) => remarks.map(({ text }) => text)).slice(0, count);

/** How well words and their times are found: against a synthesiser's own timing, and against what it was told to say. */
export async function benchSpeech(): Promise<object> {
  const folder = mkdtempSync(path.join(tmpdir(), 'vivid-bench-speech-'));
  try {
    return {
      alignment: await benchAlignment(folder),
      alignmentOfLong: await benchLong(folder),
      dictation: await benchDictation(folder),
      dictationOfPeople: await benchPeople(),
    };
  } finally {
    rmSync(folder, { recursive: true });
  }
}

const FESTIVAL = { missing: 'apt-get install festival festvox-kallpc16k' };

/** Word ends as Festival itself prints them. */
async function benchAlignment(folder: string): Promise<object> {
  if (!installed('festival')) return FESTIVAL;
  const errors: number[] = [];
  const ratios: number[] = [];
  for (const text of remarks()) {
    const { wav, ends } = festival(folder, text);
    const samples = await decodeSpeech(wav);
    await align(samples.subarray(0, SPEECH_RATE), { text: 'the', language: 'en' });
    const begun = performance.now();
    const { words } = await align(samples, { text, language: 'en' });
    ratios.push((performance.now() - begun) / 1000 / (samples.length / SPEECH_RATE));
    if (ends.length !== words.length) continue;
    words.forEach(({ end }, index) => errors.push(Math.abs(end - ends[index]!) * 1000));
  }
  return {
    ...wordEnds(errors),
    timeForSecond: figure(
      'ms for a second of sound',
      ratios.map((ratio) => ratio * 1000),
      '150 or less',
    ),
  };
}

function wordEnds(errors: number[]): object {
  errors.sort((a, b) => a - b);
  const at = (share: number): number => round(errors[Math.floor((errors.length - 1) * share)]!);
  return {
    words: errors.length,
    wordEndError: {
      unit: 'ms',
      median: at(0.5),
      percentile95: at(0.95),
      wanted: 'median 20 or less, 95th percentile 60 or less',
    },
  };
}

const PAUSE = 0.5;

/** All remarks in one recording, which is aligned part by part without anything known of it. */
async function benchLong(folder: string): Promise<object> {
  if (!installed('festival')) return FESTIVAL;
  const [parts, said, ends]: [Float32Array[], string[], number[]] = [[], [], []];
  let length = 0;
  for (const text of remarks(Infinity)) {
    const clip = festival(folder, text);
    if (clip.ends.length !== tokens(text).length) continue;
    const samples = await decodeSpeech(clip.wav);
    said.push(text);
    ends.push(...clip.ends.map((end) => end + length / SPEECH_RATE));
    parts.push(samples, new Float32Array(PAUSE * SPEECH_RATE));
    length += samples.length + PAUSE * SPEECH_RATE;
  }
  const samples = Float32Array.from(parts.flatMap((part) => [...part]));
  const begun = performance.now();
  const { words, approximate } = await align(samples, { text: said.join(' '), language: 'en' });
  const milliseconds = performance.now() - begun;
  return {
    seconds: round(length / SPEECH_RATE),
    approximate,
    ...wordEnds(words.map(({ end }, index) => Math.abs(end - ends[index]!) * 1000)),
    timeForSecond: figure('ms for a second of sound', [milliseconds / (length / SPEECH_RATE)], '150 or less'),
  };
}

function festival(folder: string, text: string): { wav: Buffer; ends: number[] } {
  const [script, wav] = [path.join(folder, 'say.scm'), path.join(folder, 'said.wav')];
  writeFileSync(
    script,
    `(set! utt (utt.synth (Utterance Text ${JSON.stringify(text)})))
     (utt.save.wave utt ${JSON.stringify(wav)} 'riff)
     (mapcar (lambda (w) (format t "%s %f\\n" (item.name w) (item.feat w "word_end"))) (utt.relation.items utt 'Word))`,
  );
  const printed = execFileSync('festival', ['-b', script], { encoding: 'utf8' });
  const ends = printed.split('\n').flatMap((line): number[] => {
    const match = /^(\S+) (\d+\.\d+)$/u.exec(line);
    return match && spoken(match[1]!) !== '' ? [Number(match[2])] : [];
  });
  return { wav: readFileSync(wav), ends };
}

/** Word errors of ten remarks in the voice that is understood best. */
async function benchDictation(folder: string): Promise<object> {
  if (!installed('flite')) return { missing: `${HOW_TO_GET_POCKETSPHINX} flite` };
  const clips = remarks().map((text) => {
    const [source, file] = [path.join(folder, 'say.txt'), path.join(folder, 'said.wav')];
    writeFileSync(source, text);
    execFileSync('flite', ['-voice', 'rms', '-f', source, '-o', file]);
    return { text, bytes: readFileSync(file) };
  });
  return dictated(clips, '6 or less, on flite’s voice rms');
}

/** A person who reads from a novel (LibriVox, public domain), as Debian ships it to test PocketSphinx with. */
const PEOPLE = '/usr/share/pocketsphinx/test/data/librivox';

async function benchPeople(): Promise<object> {
  if (!existsSync(PEOPLE)) return { missing: 'apt-get install pocketsphinx-testdata' };
  const clips = readFileSync(path.join(PEOPLE, 'transcription'), 'utf8')
    .trim()
    .split('\n')
    .map((line) => {
      const [, text, name] = /^<s> (.*) <\/s> \((.*)\)$/u.exec(line.trim())!;
      return { text: text!, bytes: readFileSync(path.join(PEOPLE, `${name}.wav`)) };
    });
  return dictated(clips, 'nothing: five clips of one reader are few');
}

async function dictated(clips: readonly { text: string; bytes: Buffer }[], wanted: string): Promise<object> {
  const engine = pocketsphinx();
  if (!engine) return { missing: HOW_TO_GET_POCKETSPHINX };
  const thread = speechThread();
  const [heard, ratios] = [[] as string[], [] as number[]];
  try {
    for (const { bytes } of clips) {
      const begun = performance.now();
      const { words } = await hear(thread, engine, { bytes, mediaType: 'audio/wav', language: 'en' });
      ratios.push((performance.now() - begun) / 1000 / (bytes.length / 2 / SPEECH_RATE));
      heard.push(textOfWords(words));
    }
  } finally {
    await thread.stop();
  }
  const said = clips.map(({ text }) => text);
  const errors = wordErrors(said.join('\n'), heard.join('\n'));
  return {
    words: errors.words,
    wordErrorRate: { unit: '%', value: round(errors.rate! * 100), wanted },
    perClip: said.map((text, index) => round(wordErrors(text, heard[index]!).rate! * 100)),
    timeForSecond: figure('s for a second of sound', ratios, '1 or less'),
  };
}
