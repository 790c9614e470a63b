/* Speaks the sample school's remarks and the practice microphone's sentences, once: needs Debian's `flite` and `ffmpeg`. */
import { peaks } from '#core/audio';
import type { Word } from '#core/transcript';
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { align } from '../../server/speech/aligner.ts';
import { decodeSpeech } from '../../server/speech/decode.ts';
import { spokenLines } from '../remarks.ts';
import { rounded, timedWords } from './timed-words.ts';

const SAMPLE_RATE = 48_000;
const PEAKS = 200;

const PRACTICE = [
  'This sentence tells me what you saw. Now tell me what it means for the shore.',
  'You give the height and the hour. Add where the figure comes from.',
  'Read this line aloud. The comma makes it stop where the thought goes on.',
];

const folder = (name: string): string => fileURLToPath(new URL(name, import.meta.url));
const work = mkdtempSync(path.join(tmpdir(), 'voices-'));
const wav = path.join(work, 'speech.wav');

function speak(voice: string, text: string): { samples: Float32Array; segments: string } {
  const segments = execFileSync('flite', ['-voice', voice, '-psdur', '-t', text, '-o', wav], { encoding: 'utf8' });
  const raw = execFileSync(
    'ffmpeg',
    ['-v', 'error', '-i', wav, '-ar', String(SAMPLE_RATE), '-ac', '1', '-f', 'f32le', '-'],
    {
      maxBuffer: 1 << 28,
    },
  );
  return { samples: new Float32Array(raw.buffer.slice(raw.byteOffset, raw.byteOffset + raw.byteLength)), segments };
}

const about: Record<string, { duration: number; peaks: number[]; words: Word[] }> = {};
for (const { name, voice, text } of spokenLines()) {
  const { samples } = speak(voice, text);
  const file = path.join(folder('../voices'), `${name}.ogg`);
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-i',
    wav,
    '-ar',
    String(SAMPLE_RATE),
    '-c:a',
    'libopus',
    '-b:a',
    '24k',
    '-bitexact',
    file,
  ]);
  const { words } = await align(await decodeSpeech(readFileSync(file)), { text, language: 'en' });
  about[name] = {
    duration: Math.round((samples.length / SAMPLE_RATE) * 1000) / 1000,
    peaks: peaks(samples, PEAKS),
    words: words.map(({ word, start, end }) => ({ word, start: rounded(start), end: rounded(end) })),
  };
}
writeFileSync(path.join(folder('../voices'), 'voices.json'), `${JSON.stringify(about)}\n`);

mkdirSync(folder('../../web/recorder/practice'), { recursive: true });
const sentences = PRACTICE.map((text, index) => {
  const { segments } = speak('rms', text);
  const file = path.join(folder('../../web/recorder/practice'), `sentence-${index}.wav`);
  execFileSync('ffmpeg', ['-v', 'error', '-y', '-i', wav, '-ar', '16000', '-ac', '1', '-bitexact', file]);
  return { text, words: timedWords(text, segments) };
});
writeFileSync(folder('../../contract/practice-sentences.json'), `${JSON.stringify(sentences, null, 2)}\n`);

// What the simulated microphone of the browser tests hears: speech, then silence, which Chromium repeats.
speak('rms', 'The tide turns twice a day, and so does a good argument. Say where your figure comes from.');
execFileSync('ffmpeg', [
  '-v',
  'error',
  '-y',
  '-i',
  wav,
  '-af',
  'apad=pad_dur=2',
  '-ar',
  '48000',
  '-ac',
  '1',
  '-bitexact',
  folder('../../e2e/speech.wav'),
]);
rmSync(work, { recursive: true });
