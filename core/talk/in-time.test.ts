import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { apart, correction } from './in-time.ts';

describe('a second player beside a first', () => {
  /** Seconds that it is ahead after a while, corrected thirty times a second. */
  const after = (seconds: number, ahead: number): number => {
    const step = 1 / 30;
    for (let at = 0; at < seconds; at += step) {
      const now = correction(ahead);
      ahead = now.jump ? 0.08 : ahead + (now.pace - 1) * step;
    }
    return ahead;
  };

  it('is in time within two seconds and a half, from wherever it was, and stays so', () => {
    fc.assert(
      fc.property(fc.double({ min: -3, max: 3, noNaN: true }), (ahead) => {
        expect(Math.abs(after(2.5, ahead))).toBeLessThan(0.02);
        expect(Math.abs(after(20, ahead))).toBeLessThan(0.02);
      }),
    );
  });

  it('never plays at a pace that one would call wrong, and not at another one for nothing', () => {
    fc.assert(
      fc.property(fc.double({ min: -0.25, max: 0.25, noNaN: true }), (ahead) => {
        const now = correction(ahead);
        expect(now.jump === false && Math.abs(now.pace - 1)).toBeLessThan(0.1201);
      }),
    );
    expect(correction(0.003)).toEqual({ jump: false, pace: 1 });
  });
});

describe('two clocks', () => {
  it('are compared by the median of several readings: a late one counts for nothing', () => {
    expect(apart([[1.5, 1], [1.62, 1.1], [1.7, 1.2], [2.9, 1.3], [1.9, 1.4]])).toBeCloseTo(0.5, 1); // prettier-ignore
    expect(apart([[2, 1], [3, 1]])).toBe(1.5); // prettier-ignore
    expect(apart([])).toBe(0);
  });
});
