import { describe, expect, it } from 'vitest';
import { kWeighting } from './k-weighting.ts';
import { loudness, truePeak } from './index.ts';

const RATE = 48_000;

/** A 1 kHz sine in steps: how long in seconds, and how loud in dBFS (peak). */
function steps(
  parts: readonly (readonly [seconds: number, dbfs: number])[],
  rate = RATE,
  frequency = 1000,
): Float32Array {
  const samples = new Float32Array(parts.reduce((sum, [seconds]) => sum + Math.round(seconds * rate), 0));
  let at = 0;
  for (const [seconds, dbfs] of parts)
    for (const end = at + Math.round(seconds * rate); at < end; at++)
      samples[at] = 10 ** (dbfs / 20) * Math.sin((2 * Math.PI * frequency * at) / rate);
  return samples;
}
const stereo = (samples: Float32Array, rate = RATE) => ({ channels: [samples, samples], rate });

describe('K-weighting', () => {
  it('has the coefficients of ITU-R BS.1770-4, annex 1, tables 1 and 2, at 48 kHz', () => {
    const [shelf, pass] = kWeighting(RATE);
    expect(shelf.b0).toBeCloseTo(1.53512485958697, 9);
    expect(shelf.b1).toBeCloseTo(-2.69169618940638, 9);
    expect(shelf.b2).toBeCloseTo(1.19839281085285, 9);
    expect(shelf.a1).toBeCloseTo(-1.69065929318241, 9);
    expect(shelf.a2).toBeCloseTo(0.73248077421585, 9);
    expect(pass.a1).toBeCloseTo(-1.99004745483398, 9);
    expect(pass.a2).toBeCloseTo(0.99007225036621, 9);
  });
});

/** EBU Tech 3341, table 1: the synthetic minimum requirements test signals, each to ±0.1 LU. */
describe('EBU Tech 3341', () => {
  it.each([
    [1, [[20, -23]], -23],
    [2, [[20, -33]], -33],
    [
      3,
      [
        [10, -36],
        [60, -23],
        [10, -36],
      ],
      -23,
    ],
    [
      4,
      [
        [10, -72],
        [10, -36],
        [60, -23],
        [10, -36],
        [10, -72],
      ],
      -23,
    ],
    [
      5,
      [
        [20, -26],
        [20.1, -20],
        [20, -26],
      ],
      -23,
    ],
  ] as [number, [number, number][], number][])('test %i: integrated loudness', (_, parts, wanted) => {
    expect(Math.abs(loudness(stereo(steps(parts))).integrated - wanted)).toBeLessThanOrEqual(0.1);
  });

  it('tests 1 and 2: momentary and short-term loudness read the same', () => {
    for (const level of [-23, -33]) {
      const { momentaryMax, shortTermMax } = loudness(stereo(steps([[20, level]])));
      expect(Math.abs(momentaryMax - level)).toBeLessThanOrEqual(0.1);
      expect(Math.abs(shortTermMax - level)).toBeLessThanOrEqual(0.1);
    }
  });

  it('test 6: five channels, each with its weight', () => {
    const [front, centre, surround] = [-28, -24, -30].map((level) => steps([[20, level]]));
    const channels = [front!, front!, centre!, surround!, surround!];
    expect(Math.abs(loudness({ channels, rate: RATE }).integrated + 23)).toBeLessThanOrEqual(0.1);
  });

  it('test 9: short-term loudness of a pattern of 3 s', () => {
    const pattern = Array.from(
      { length: 5 },
      () =>
        [
          [1.34, -20],
          [1.66, -30],
        ] as const,
    ).flat();
    expect(Math.abs(loudness(stereo(steps(pattern))).shortTermMax + 23)).toBeLessThanOrEqual(0.1);
  });

  it('test 12: momentary loudness of a pattern of 400 ms', () => {
    const pattern = Array.from(
      { length: 25 },
      () =>
        [
          [0.18, -20],
          [0.22, -30],
        ] as const,
    ).flat();
    expect(Math.abs(loudness(stereo(steps(pattern))).momentaryMax + 23)).toBeLessThanOrEqual(0.1);
  });

  it.each([
    ['15', 4, 0, 0.5, -6],
    ['16', 4, 45, 0.5, -6],
    ['17', 6, 60, 0.5, -6],
    ['18', 8, 67.5, 0.5, -6],
    ['19', 4, 45, 1.41, 3],
  ])('test %s: true peak between the samples, +0.2 and −0.4 dB', (_, division, degrees, amplitude, wanted) => {
    const phase = (degrees * Math.PI) / 180;
    // It begins and ends softly: a sine that is cut off has a higher peak at its edge than the sine.
    const samples = Float32Array.from(
      { length: RATE },
      (_, i) => Math.min(1, i / 4800, (RATE - i) / 4800) * amplitude * Math.sin((2 * Math.PI * i) / division + phase),
    );
    const level = truePeak([samples]);
    expect(level).toBeLessThanOrEqual(wanted + 0.2);
    expect(level).toBeGreaterThanOrEqual(wanted - 0.4);
  });
});

/** EBU Tech 3342, table 1: loudness range, each to ±1 LU. */
describe('EBU Tech 3342', () => {
  it.each([
    [1, [-20, -30], 10],
    [2, [-20, -15], 5],
    [3, [-40, -20], 20],
    [4, [-50, -35, -20, -35, -50], 15],
  ] as [number, number[], number][])('test %i: loudness range', (_, levels, wanted) => {
    const { range } = loudness(stereo(steps(levels.map((level) => [20, level] as const))));
    expect(Math.abs(range - wanted)).toBeLessThanOrEqual(1);
  });
});

describe('loudness', () => {
  it('of silence is −∞, of nothing too, and of a moment is a number', () => {
    expect(loudness({ channels: [new Float32Array(RATE)], rate: RATE }).integrated).toBe(-Infinity);
    expect(loudness({ channels: [new Float32Array(0)], rate: RATE }).integrated).toBe(-Infinity);
    expect(loudness({ channels: [steps([[0.15, -20]])], rate: RATE }).integrated).toBeCloseTo(-23, 0);
  });

  it('does not depend on the sampling rate', () => {
    for (const rate of [16_000, 22_050, 44_100, 96_000])
      expect(loudness(stereo(steps([[10, -23]], rate), rate)).integrated).toBeCloseTo(-23, 1);
  });
});
