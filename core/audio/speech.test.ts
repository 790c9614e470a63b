import { describe, expect, it } from 'vitest';
import { levelDbfs, resampled, speechSpans, stretches } from './index.ts';

const tone = (hertz: number, rate: number, seconds: number, gain = 0.5): Float32Array =>
  Float32Array.from({ length: rate * seconds }, (_, i) => gain * Math.sin((2 * Math.PI * hertz * i) / rate));

describe('stretches of speech', () => {
  it('are parted by pauses, not by stop consonants', () => {
    const rate = 16_000;
    const samples = new Float32Array(rate * 4);
    samples.set(tone(200, rate, 0.5), rate * 0.5);
    samples.set(tone(200, rate, 0.5), rate * 1.1);
    samples.set(tone(200, rate, 1), rate * 2.5);
    const spans = speechSpans(samples, rate);
    expect(spans.map(({ start, end }) => [start.toFixed(1), end.toFixed(1)])).toEqual([
      ['0.5', '1.6'],
      ['2.5', '3.5'],
    ]);
  });

  it('are none in silence', () => {
    expect(speechSpans(new Float32Array(16_000), 16_000)).toEqual([]);
  });
});

describe('a long recording', () => {
  const rate = 1000;
  const said = (seconds: number, pauses: number[]): Float32Array => {
    const samples = tone(100, rate, seconds);
    for (const pause of pauses) samples.fill(0, (pause - 0.2) * rate, (pause + 0.2) * rate);
    return samples;
  };

  it('is parted in its pauses', () => {
    const parts = stretches(said(50, [3, 16, 29, 44]), rate, 20);
    expect(parts.map(({ end }) => Math.round(end))).toEqual([16, 29, 44, 50]);
    for (const { end } of parts.slice(0, -1)) expect(Math.abs(end - Math.round(end))).toBeLessThan(0.2);
  });

  it('has no gaps, nothing twice, and no stretch that is too long, whatever is in it', () => {
    for (const seconds of [0.5, 20, 20.5, 61, 100])
      for (const pauses of [[], [5, 10, 15], [19.9, 20.1]]) {
        const parts = stretches(said(seconds, seconds > 21 ? pauses : []), rate, 20);
        expect(parts[0]!.start).toBe(0);
        expect(parts.at(-1)!.end).toBe(seconds);
        parts.forEach(({ start, end }, index) => {
          if (index > 0) expect(start).toBe(parts[index - 1]!.end);
          expect(end - start).toBeLessThanOrEqual(20);
          if (index < parts.length - 1) expect(end - start).toBeGreaterThanOrEqual(10);
        });
      }
    expect(stretches(new Float32Array(), rate, 20)).toEqual([{ start: 0, end: 0 }]);
  });
});

describe('another rate', () => {
  it('keeps what both rates can carry', () => {
    const result = resampled(tone(1000, 48_000, 1), 48_000, 16_000);
    const wanted = tone(1000, 16_000, 1);
    expect(result).toHaveLength(16_000);
    const error = result.subarray(200, 15_800).map((sample, i) => sample - wanted[i + 200]!);
    expect(levelDbfs(error) - levelDbfs(wanted)).toBeLessThan(-60);
  });

  it('loses what the lower one cannot: nothing is mirrored down', () => {
    const result = resampled(tone(11_000, 48_000, 1), 48_000, 16_000);
    expect(levelDbfs(result.subarray(200, 15_800))).toBeLessThan(-60);
  });

  it('goes up too', () => {
    const result = resampled(tone(440, 8_000, 1), 8_000, 16_000).subarray(400, 15_600);
    const wanted = tone(440, 16_000, 1).subarray(400, 15_600);
    expect(levelDbfs(result.map((sample, i) => sample - wanted[i]!)) - levelDbfs(wanted)).toBeLessThan(-60);
  });
});
