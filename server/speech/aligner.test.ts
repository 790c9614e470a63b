import { execFileSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { carried, type Word } from '#core/transcript';
import { align, type Aligned } from './aligner.ts';
import { decodeSpeech } from './decode.ts';
import { SPEECH_RATE } from './speech-rate.ts';

const SENTENCES = [
  'Your first paragraph tells me where the harbour lies and who lives beside it.',
  'I could draw a map from these few lines, and that is rare.',
  'Then you count the boats, but you never say on which day you counted them.',
  'A number without a date is only half of a number, so please add it.',
  'The interview with the fisherman is the heart of the whole essay.',
  'You let him speak in his own words, and you do not correct his grammar.',
  'Keep doing that, because his voice carries more than any summary could.',
  'In the middle section I lost the thread for a moment.',
  'You jump from the price of diesel to the colour of the nets.',
  'Perhaps a short bridge between these two would help your readers.',
  'Your table of temperatures is correct, and every column has its unit.',
  'Still, the caption should tell us what we are supposed to see there.',
  'I would like to know why the third value is missing.',
  'If the thermometer was broken, say so, for honest gaps are no shame.',
  'The drawing of the jelly fish made me laugh out loud.',
  'It also shows the umbrella and the eight arms exactly where they belong.',
  'Your conclusion repeats the introduction almost word for word.',
  'Ask yourself what you know now that you did not know in April.',
  'Write that down in three plain sentences and throw the rest away.',
  'Spelling has become much better since the autumn holidays.',
  'Only the silent letters still play hide and seek with you.',
  'Read the last page aloud to your grandmother before you hand it in again.',
  'She will notice every comma that is not where a breath should be.',
  'Grades are not everything, but this one will make you smile.',
  'I am looking forward to the second version on Wednesday.',
  'We can look at the graph together and choose a better scale.',
  'Until then, enjoy the storm, and stay away from the pier.',
  'Thank you for letting me read about the place where you grew up.',
  'Somebody at the ministry ought to see your photographs of the flooded stairs.',
  'When the ferry is late, use the time to sketch what people carry.',
  'Baskets, bicycles, a goat, a wedding cake: all of that is geography too.',
];
const PAUSE = 0.4;

describe('aligning a recording that is too long for one piece', () => {
  const folder = mkdtempSync(path.join(tmpdir(), 'vivid-aligner-'));
  /** When each sentence begins: known, because they were put one after the other. */
  const starts: number[] = [];
  let samples: Float32Array;
  const turn = vi.fn(() => Promise.resolve());
  let right: Aligned;

  beforeAll(async () => {
    const file = path.join(folder, 'said.wav');
    const parts: Float32Array[] = [];
    let length = 0;
    for (const sentence of SENTENCES) {
      writeFileSync(path.join(folder, 'said.txt'), sentence);
      execFileSync('flite', ['-voice', 'rms', '-f', path.join(folder, 'said.txt'), '-o', file]);
      const said = await decodeSpeech(readFileSync(file));
      starts.push(length / SPEECH_RATE);
      parts.push(said, new Float32Array(PAUSE * SPEECH_RATE));
      length += said.length + PAUSE * SPEECH_RATE;
    }
    samples = new Float32Array(length);
    let at = 0;
    for (const part of parts) {
      samples.set(part, at);
      at += part.length;
    }
    right = await align(samples, { text: SENTENCES.join(' '), language: 'en' }, turn);
  }, 240_000);
  afterAll(() => rmSync(folder, { recursive: true }));

  /** Seconds between where a sentence begins and where its first word was found. */
  const off = (words: readonly Word[], sentences: readonly string[]): number[] => {
    let at = 0;
    return sentences.flatMap((sentence) => {
      const { start } = words[at]!;
      at += sentence.split(' ').length;
      const known = starts[SENTENCES.indexOf(sentence)];
      return known === undefined ? [] : [Math.abs(start - known)];
    });
  };
  const aligned = async (sentences: readonly string[], known: readonly Word[] = []) => {
    const text = sentences.join(' ');
    return align(samples, {
      text,
      language: 'en',
      known: carried(known, text, samples.length / SPEECH_RATE),
    });
  };

  it('is long enough for this test', () => {
    expect(samples.length / SPEECH_RATE).toBeGreaterThan(121);
  });

  it('finds every sentence though nothing is known of it, and lets others have their turn', () => {
    expect(right.approximate).toBe(false);
    // Flite begins with some silence.
    expect(Math.max(...off(right.words, SENTENCES))).toBeLessThan(0.4);
    expect(turn).toHaveBeenCalled();
  });

  it('keeps to what is known where sentences were taken out and others put in', async () => {
    const mended = [...SENTENCES];
    mended.splice(4, 3);
    mended.splice(20, 0, 'Nobody has ever said this sentence in any recording, nor the one that ought to follow it.');
    const { words } = await aligned(mended, right.words);
    expect(off(words, mended).filter((seconds) => seconds > 0.5)).toEqual([]);
  }, 240_000);

  it('does not believe in pauses that were made up', async () => {
    const wrong = right.words.map((word, index) => {
      const start = index * 0.2 + Math.floor(index / 9);
      return { ...word, start, end: start + 0.2 };
    });
    const { words, approximate } = await aligned(SENTENCES, wrong);
    expect(approximate).toBe(false);
    expect(Math.max(...off(words, SENTENCES))).toBeLessThan(0.4);
  }, 240_000);

  it('says that times are rough where other words were said', async () => {
    const others = SENTENCES.slice(-12).reverse();
    const other = await aligned(others);
    expect(other.approximate).toBe(true);
    expect(other.words).toHaveLength(others.join(' ').split(' ').length);
  }, 240_000);
});
