import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readFileSync, rmSync, utimesSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { writeWav } from '#core/audio';
import { isDoubtful, textOfWords, tokens, wordErrors } from '#core/transcript';
import { alignable } from './aligned-languages.ts';
import { decodeSpeech } from './decode.ts';
import { SPEECH_RATE } from './speech-rate.ts';
import { engineHere, hear } from './hear.ts';
import { installed } from './installed.ts';
import { pocketsphinx } from './pocketsphinx.ts';
import { SpeechError } from './speech-error.ts';
import { speechThread } from './speech-thread.ts';
import type { Clip, Transcriber } from './transcriber.ts';

const demo = (file: string): string => fileURLToPath(new URL(`../../demo/${file}`, import.meta.url));
const folder = mkdtempSync(path.join(tmpdir(), 'vivid-listening-'));
const thread = speechThread();
afterAll(async () => {
  await thread.stop();
  rmSync(folder, { recursive: true });
});

/** The same words every time, so that what is heard does not change. */
function synthesised(text: string): Buffer {
  const file = path.join(folder, 'said.wav');
  writeFileSync(path.join(folder, 'said.txt'), text);
  execFileSync('flite', ['-voice', 'rms', '-f', path.join(folder, 'said.txt'), '-o', file]);
  return readFileSync(file);
}

const silence = (seconds: number): Buffer =>
  Buffer.from(writeWav(new Float32Array(SPEECH_RATE * seconds), SPEECH_RATE));
function noise(seconds: number): Buffer {
  let seed = 1;
  const samples = Float32Array.from({ length: SPEECH_RATE * seconds }, () => {
    seed = (seed * 48_271) % 2_147_483_647;
    return 0.1 * (seed / 1_073_741_824 - 1);
  });
  return Buffer.from(writeWav(samples, SPEECH_RATE));
}

/** A tune on something like a plucked string. */
function music(seconds: number): Buffer {
  const notes = [262, 330, 392, 523, 440, 349, 294, 392];
  const samples = Float32Array.from({ length: SPEECH_RATE * seconds }, (_, index) => {
    const time = index / SPEECH_RATE;
    const note = notes[Math.floor(time / 0.4) % notes.length]!;
    const overtones = [1, 2, 3, 4, 5, 6].map((n) => Math.sin(2 * Math.PI * note * n * time) / n ** 1.5);
    const fading = Math.exp(-4 * (time % 0.4)) * Math.min(1, (time % 0.4) * 100);
    return 0.2 * fading * overtones.reduce((sum, one) => sum + one);
  });
  return Buffer.from(writeWav(samples, SPEECH_RATE));
}

/** What is said in `amaru-obvious.ogg`. */
const OBVIOUS =
  'When you write that a reason is obvious, the reader stops looking. Take these four words out, and your explanation becomes stronger.';

describe('decoding', () => {
  it('reads Opus in Ogg, and WAV of any rate, to one channel at 16 kHz', async () => {
    const ogg = await decodeSpeech(readFileSync(demo('voices/amaru-obvious.ogg')));
    const { duration } = (
      JSON.parse(readFileSync(demo('voices/voices.json'), 'utf8')) as Record<string, { duration: number }>
    )['amaru-obvious']!;
    expect(ogg.length / SPEECH_RATE).toBeCloseTo(duration, 1);
    const wav = await decodeSpeech(Buffer.from(writeWav(new Float32Array(44_100).fill(0.25), 44_100)));
    expect(wav.length).toBe(SPEECH_RATE);
    expect(wav[8000]).toBeCloseTo(0.25, 2);
  });

  it('tells what is damaged or cannot be decoded here', async () => {
    for (const bytes of [Buffer.alloc(0), Buffer.from('RIFF....WAVE'), noise(1).subarray(44), Buffer.from('<html>')])
      await expect(decodeSpeech(bytes)).rejects.toThrow(SpeechError);
    const aac = readFileSync(demo('documents/aroha-ngata.m4a'));
    if (installed('ffmpeg')) expect((await decodeSpeech(aac)).length).toBeGreaterThan(SPEECH_RATE);
    else await expect(decodeSpeech(aac)).rejects.toThrow(/ffmpeg/);
  });

  it('does not make hours of a few bytes', async () => {
    const wav = (samples: number, rate: number) => Buffer.from(writeWav(new Float32Array(samples), rate));
    await expect(decodeSpeech(wav(20_000, 1))).rejects.toThrow('up to three hours');
    await expect(decodeSpeech(wav(3 * 3600 * 4000 + 1, 4000))).rejects.toThrow('up to three hours');
    expect(await decodeSpeech(wav(4000, 4000))).toHaveLength(SPEECH_RATE);
  });

  it('keeps what comes before the damage', async () => {
    const whole = readFileSync(demo('voices/amaru-obvious.ogg'));
    const half = await decodeSpeech(whole.subarray(0, whole.length / 2));
    expect(half.length).toBeGreaterThan(SPEECH_RATE);
  });
});

describe('aligning', () => {
  const text = OBVIOUS;
  const bytes = readFileSync(demo('voices/amaru-obvious.ogg'));

  it('gives every word of a known text its time, in order and inside of the recording', async () => {
    const { words, approximate } = await thread.align(bytes, { text, language: 'en-GB' });
    expect(approximate).toBe(false);
    expect(words.map(({ word }) => word)).toEqual(tokens(text).map((token) => token.text));
    words.forEach(({ start, end }, index) => {
      expect(end).toBeGreaterThan(start);
      if (index > 0) expect(start).toBeGreaterThanOrEqual(words[index - 1]!.end);
    });
  });

  it('reads figures, compounds and names that no dictionary has', async () => {
    const said = synthesised('On the second of May Quispe counted thirty five half open shells.');
    const { words, approximate } = await thread.align(said, {
      text: 'On the 2nd of May, Quispe counted 35 half-open shells.',
      language: 'en',
    });
    expect(approximate).toBe(false);
    const at = (word: string) => words.find((one) => one.word === word)!;
    expect(at('35').end - at('35').start).toBeGreaterThan(0.4);
    expect(at('half-open').end - at('half-open').start).toBeGreaterThan(0.4);
    expect(at('Quispe').start).toBeGreaterThan(at('May,').start);
  });

  it('shares out the time, and says so, in languages that have no model here and for words that were not said', async () => {
    expect(['fr-CA', 'es', 'en'].map(alignable)).toEqual(['fr', undefined, 'en']);
    const spanish = await thread.align(bytes, {
      text: 'Esto no es lo que se dice aquí, pero da igual.',
      language: 'es',
    });
    expect(spanish.approximate).toBe(true);
    expect(spanish.words).toHaveLength(11);
    const signs = await thread.align(bytes, { text: '日本語 だけ', language: 'en' });
    expect(signs.words.map(({ word }) => word)).toEqual(['日本語', 'だけ']);
  });

  it('in French uses the French model', async () => {
    // No French voice is at hand: English sounds read as French words still find their places in order.
    const { words } = await thread.align(synthesised('bonjour la mer'), { text: 'Bonjour, la mer.', language: 'fr' });
    expect(words.map(({ word }) => word)).toEqual(['Bonjour,', 'la', 'mer.']);
  });

  it('refuses what is no recording, and goes on afterwards', async () => {
    await expect(thread.align(Buffer.from('no sound'), { text: 'words', language: 'en' })).rejects.toThrow(SpeechError);
    expect((await thread.align(bytes, { text, language: 'en' })).words.length).toBeGreaterThan(10);
  });
});

describe('PocketSphinx, the real one', () => {
  let engine: Transcriber;
  beforeAll(() => {
    engine = pocketsphinx()!;
    expect(engine, 'npm test installs it').toBeDefined();
  });

  it('writes down what a synthetic voice says, in sentences and with times', async () => {
    const text = 'The reason you give is obvious. But I would like to see how you know it.';
    const { words, engine: name } = await hear(thread, engine, {
      bytes: synthesised(text),
      mediaType: 'audio/wav',
      language: 'en',
    });
    expect(name).toBe('PocketSphinx');
    expect(wordErrors(text, textOfWords(words)).rate).toBeLessThanOrEqual(0.1);
    expect(textOfWords(words)).toMatch(/^[A-Z].*\.$/u);
    words.forEach(({ start, end, confidence }) => {
      expect(end).toBeGreaterThan(start);
      expect(confidence).toBeGreaterThanOrEqual(0);
    });
  }, 180_000);

  it('writes down what a person reads, as a draft: one from LibriVox that Debian ships with PocketSphinx', async () => {
    const file = '/usr/share/pocketsphinx/test/data/librivox/sense_and_sensibility_01_austen_64kb-0920.wav';
    const text = 'Had he married a more amiable woman, he might have been made still more respectable than he was.';
    const bytes = readFileSync(file);
    const { words } = await hear(thread, engine, { bytes, mediaType: 'audio/wav', language: 'en' });
    expect(wordErrors(text, textOfWords(words)).rate).toBeLessThan(0.4);
    const aligned = await thread.align(bytes, { text, language: 'en' });
    expect(aligned.approximate).toBe(false);
    expect(aligned.words.map(({ word }) => word)).toEqual(text.split(' '));
  }, 180_000);

  it('listens to a long recording stretch by stretch, and its times go through', async () => {
    const REPEATS = 4;
    const pause = Buffer.alloc(2 * 12 * SPEECH_RATE);
    const said = synthesised('The reason you give is obvious. But I would like to see how you know it.').subarray(44);
    const samples = Buffer.concat(Array.from({ length: REPEATS }, () => [said, pause]).flat());
    const bytes = Buffer.from(
      writeWav(
        Float32Array.from({ length: samples.length / 2 }, (_, i) => samples.readInt16LE(2 * i) / 32_768),
        SPEECH_RATE,
      ),
    );
    const { stretches, duration } = await thread.listen(bytes);
    expect(stretches.length).toBeGreaterThan(1);
    const { words } = await hear(thread, engine, { bytes, mediaType: 'audio/wav', language: 'en' });
    const times = words.filter(({ word }) => /^reason/iu.test(word)).map(({ start }) => start);
    expect(times.length).toBeGreaterThanOrEqual(REPEATS - 1);
    const period = duration / REPEATS;
    for (const time of times) expect(time % period).toBeCloseTo(times[0]! % period, 0);
    expect(times.at(-1)!).toBeGreaterThan((REPEATS - 2) * period);
  }, 600_000);

  it.each([
    ['silence', () => silence(3)],
    ['noise', () => noise(3)],
    ['music', () => music(6)],
  ])('makes up no words in %s', async (_, bytes) => {
    await expect(hear(thread, engine, { bytes: bytes(), mediaType: 'audio/wav', language: 'en' })).rejects.toThrow(
      'No speech was made out',
    );
  });

  it('makes a draft that shows its doubts where another language is spoken than was set', async () => {
    const german = synthesised('Ich habe das nicht verstanden, warum soll das so sein, und was sagen die anderen?');
    const { words } = await hear(thread, engine, { bytes: german, mediaType: 'audio/wav', language: 'en' });
    const doubtful = words.filter(isDoubtful).length / words.length;
    const english = await hear(thread, engine, {
      bytes: readFileSync(demo('voices/amaru-obvious.ogg')),
      mediaType: 'audio/ogg',
      language: 'en',
    });
    expect(doubtful).toBeGreaterThan(0.5);
    expect(english.words.filter(isDoubtful).length / english.words.length).toBeLessThan(doubtful);
  }, 180_000);

  it('is not asked for a language that it does not know', async () => {
    expect(engineHere([engine], 'fr')).toBeUndefined();
    const recording = { bytes: readFileSync(demo('voices/amaru-obvious.ogg')), mediaType: 'audio/ogg', language: 'fr' };
    await expect(hear(thread, undefined, recording)).rejects.toThrow('No speech engine on this server knows French');
  });

  describe('when it is broken', () => {
    const clip: Clip = { bytes: silence(1), mediaType: 'audio/wav', wav: silence(1), duration: 1, language: 'en' };
    const script = (name: string, body: string): string => {
      const file = path.join(folder, name);
      writeFileSync(file, `#!/bin/sh\n${body}\n`, { mode: 0o755 });
      return file;
    };

    it('dies', async () => {
      const dying = pocketsphinx({ program: script('dies', 'kill -SEGV $$') })!;
      await expect(dying.transcribe(clip)).rejects.toThrow('PocketSphinx stopped unexpectedly.');
    });

    it('hangs', async () => {
      const hanging = pocketsphinx({ program: script('hangs', 'exec sleep 60'), patience: () => 0.3 })!;
      await expect(hanging.transcribe(clip)).rejects.toThrow('PocketSphinx did not answer in time.');
    });

    it('says how far it is meanwhile', async () => {
      const words = String.raw`0 1 0.10 0.29 so 0.9\n1 1 0.20 0.29 on 0.9\n1 1 0.6`;
      const slow = pocketsphinx({
        program: script('slow', `while [ "$1" != -ctm ]; do shift; done; printf '${words}' > "$2"; exec sleep 3`),
      })!;
      const stretches = [
        { start: 0, end: 0.5 },
        { start: 0.5, end: 2 },
      ];
      const onProgress = vi.fn();
      const heard = await slow.transcribe({ ...clip, duration: 2, stretches, onProgress });
      expect(onProgress.mock.calls).toEqual([[0.5]]);
      expect(heard?.words).toEqual([
        { word: 'so', start: 0.1, end: 0.4, confidence: 0.9 },
        { word: 'on', start: 0.7, end: 1, confidence: 0.9 },
      ]);
    });

    it('was killed together with its server: the recording does not stay lying about', async () => {
      const [old, fresh] = ['old', 'fresh'].map(() => mkdtempSync(path.join(tmpdir(), 'vivid-speech-'))) as [
        string,
        string,
      ];
      const twoDays = new Date(Date.now() - 2 * 24 * 3600_000);
      writeFileSync(path.join(old, '0.raw'), 'a voice');
      utimesSync(old, twoDays, twoDays);
      await pocketsphinx({ program: script('idle', 'exit 0') })!.transcribe(clip);
      expect([existsSync(old), existsSync(fresh)]).toEqual([false, true]);
      rmSync(fresh, { recursive: true });
    });

    it('answers nonsense', async () => {
      const lines = [
        ...['word x y z', '0 1 0.0 1.0 <sil> 1.0', '0 1 0.1 word', '0 1 0.1 0.2 ... 1.0', '7 1 0.1 0.2 word 1.0'],
      ].join('\\n');
      const mad = pocketsphinx({
        program: script('mad', `while [ "$1" != -ctm ]; do shift; done; printf '${lines}' > "$2"`),
      })!;
      expect(await mad.transcribe(clip)).toBeUndefined();
      const silent = pocketsphinx({ program: script('silent', 'exit 0') })!;
      expect(await silent.transcribe(clip)).toBeUndefined();
    });
  });
});
