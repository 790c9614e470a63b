import { describe, expect, it } from 'vitest';
import { quietestMoment, splice, withoutSpan } from '#core/audio';
import { struckSpans, withoutSpans } from './index.ts';

const RATE = 16_000;

/** Tones where words are, with silence between them. */
function spokenTones(words: readonly { start: number; end: number }[], seconds: number): Float32Array {
  const samples = new Float32Array(seconds * RATE);
  for (const { start, end } of words)
    for (let i = Math.round(start * RATE); i < end * RATE; i++) {
      const edge = Math.min(1, (i / RATE - start) / 0.02, (end - i / RATE) / 0.02);
      samples[i] = 0.5 * Math.max(0, edge) * Math.sin(i * 0.2);
    }
  return samples;
}

const words = [
  { word: 'take', start: 0.5, end: 0.9 },
  { word: 'um', start: 1, end: 1.3 },
  { word: 'this', start: 1.35, end: 1.7 },
  { word: 'out', start: 3.2, end: 3.6 },
];
const sound = { samples: spokenTones(words, 4), rate: RATE };

describe('words that are struck out', () => {
  it('are cut where it is quiet on both sides', () => {
    const [span, ...others] = struckSpans(words, new Set([1]), sound);
    expect(others).toEqual([]);
    expect(span!.start).toBeGreaterThan(0.89);
    expect(span!.start).toBeLessThan(1.01);
    expect(span!.end).toBeGreaterThan(1.29);
    expect(span!.end).toBeLessThan(1.36);
  });

  it('at the ends take the silence there along, and beside a long pause leave some of it', () => {
    const spans = struckSpans(words, new Set([0, 3]), sound);
    expect(spans[0]!.start).toBe(0);
    expect(spans[1]!.end).toBe(4);
    expect(spans[1]!.start).toBeGreaterThan(1.7);
    expect(spans[1]!.start).toBeLessThan(1.9);
  });

  it('that follow each other are one cut', () => {
    expect(struckSpans(words, new Set([1, 2]), sound)).toHaveLength(1);
  });

  it('leave no click: the cut changes no faster than the sound itself', () => {
    const kept = withoutSpans([{ start: 0, end: 4 }], struckSpans(words, new Set([1]), sound));
    const result = splice(sound.samples, RATE, kept);
    const steepest = (samples: Float32Array): number =>
      samples.reduce((most, sample, i) => (i === 0 ? 0 : Math.max(most, Math.abs(sample - samples[i - 1]!))), 0);
    expect(steepest(result)).toBeLessThanOrEqual(steepest(sound.samples) * 1.01);
    const cut = kept[0]!.end;
    const around = result.subarray(Math.round((cut - 0.005) * RATE), Math.round((cut + 0.005) * RATE));
    expect(Math.max(...around.map(Math.abs))).toBeLessThan(0.02);
  });

  it('leave the others as they were', () => {
    const cuts = struckSpans(words, new Set([1]), sound);
    expect(withoutSpans([{ start: 0, end: 4 }], cuts)).toEqual(withoutSpan([{ start: 0, end: 4 }], cuts[0]!));
  });
});

describe('the quietest moment', () => {
  it('is where least is to be heard, and the middle where all is alike', () => {
    expect(quietestMoment(sound.samples, RATE, { start: 0.6, end: 1.2 })).toBeCloseTo(0.95, 1);
    expect(quietestMoment(new Float32Array(RATE), RATE, { start: 0.2, end: 0.6 })).toBeCloseTo(0.4, 2);
    expect(quietestMoment(new Float32Array(RATE), RATE, { start: 0.2, end: 0.205 })).toBeCloseTo(0.2025);
  });
});
