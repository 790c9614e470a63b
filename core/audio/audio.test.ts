import { describe, expect, it } from 'vitest';
import { clock, levelDbfs, PEAK_FULL_SCALE, peaks, SILENCE_DBFS } from './index.ts';

const sine = (amplitude: number, length = 48_000): Float32Array =>
  Float32Array.from({ length }, (_, i) => amplitude * Math.sin((2 * Math.PI * 997 * i) / 48_000));

describe('levelDbfs', () => {
  it('reads −3.01 dB for a full-scale sine: its effective value is 1/√2', () => {
    expect(levelDbfs(sine(1))).toBeCloseTo(-3.0103, 3);
    expect(levelDbfs(sine(0.1))).toBeCloseTo(-23.0103, 3);
  });

  it('reads 0 dB for a full-scale square, and silence for nothing', () => {
    expect(levelDbfs(Float32Array.of(1, -1, 1, -1))).toBe(0);
    expect(levelDbfs(new Float32Array(100))).toBe(SILENCE_DBFS);
    expect(levelDbfs(new Float32Array(0))).toBe(SILENCE_DBFS);
  });
});

describe('peaks', () => {
  it('finds the largest magnitude of each slice, whatever its sign', () => {
    expect(peaks(Float32Array.of(0, 0.5, -1, 0.2, 0, 0), 3)).toEqual([128, PEAK_FULL_SCALE, 0]);
  });

  it('misses no sample: one click is seen at its place', () => {
    for (const at of [0, 499, 500, 999]) {
      const samples = new Float32Array(1000);
      samples[at] = -0.8;
      const outline = peaks(samples, 7);
      expect(outline.filter((peak) => peak > 0)).toHaveLength(1);
      expect(outline[Math.floor((at * 7) / 1000)] ?? outline.at(-1)).toBe(204);
    }
  });

  it('has no more slices than samples, and clips what is beyond full scale', () => {
    expect(peaks(Float32Array.of(2, -3), 200)).toEqual([PEAK_FULL_SCALE, PEAK_FULL_SCALE]);
    expect(peaks(new Float32Array(0), 5)).toEqual([]);
  });
});

describe('clock', () => {
  it.each([
    [0, '0:00'],
    [7.9, '0:07'],
    [60, '1:00'],
    [754, '12:34'],
    [3661, '61:01'],
    [-2, '0:00'],
  ])('%d s is %s', (seconds, text) => {
    expect(clock(seconds)).toBe(text);
  });
});
