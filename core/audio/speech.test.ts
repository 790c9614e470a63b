import { describe, expect, it } from 'vitest';
import { levelDbfs, resampled, speechSpans } from './index.ts';

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
