import { describe, expect, it } from 'vitest';
import { activeSeconds, keystrokeSeconds, pace, typed } from './index.ts';

describe('pace', () => {
  it('says when the class will be done', () => {
    const visits = [
      { submission: 'a', seconds: 30, done: true },
      { submission: 'b', seconds: 50, done: true },
    ];
    expect(pace(visits, 28)).toEqual({ done: 2, left: 28, spent: 80, perStudent: 40, toGo: 1120 });
  });

  it('counts a student once however often they are visited, and all the time spent on them', () => {
    const visits = [
      { submission: 'a', seconds: 30, done: true },
      { submission: 'b', seconds: 20, done: false },
      { submission: 'a', seconds: 10, done: true },
    ];
    expect(pace(visits, 3)).toMatchObject({ done: 1, spent: 60, toGo: 180 });
  });

  it('promises nothing before the first is done', () => {
    expect(pace([{ submission: 'a', seconds: 90, done: false }], 5)).toMatchObject({
      perStudent: undefined,
      toGo: undefined,
    });
    expect(pace([], 0)).toMatchObject({ done: 0, spent: 0, toGo: undefined });
  });
});

describe('activeSeconds', () => {
  it('leaves long pauses out', () => {
    expect(activeSeconds([0, 10, 20, 320, 330], 120)).toBe(30);
    expect(activeSeconds([], 120)).toBe(0);
    expect(activeSeconds([5], 120)).toBe(0);
  });
});

describe('keystroke-level model', () => {
  it('adds up the operators of Card, Moran & Newell (1980)', () => {
    // Mentally prepare, point, click, back to the keyboard, press a key: 1.35 + 1.1 + 0.2 + 0.4 + 0.2.
    expect(keystrokeSeconds('M P K H K')).toBeCloseTo(3.25);
    expect(keystrokeSeconds('')).toBe(0);
    expect(() => keystrokeSeconds('M X')).toThrow(RangeError);
  });

  it('takes about half a minute for 25 words at 55 words a minute', () => {
    expect(keystrokeSeconds(typed(25))).toBeCloseTo(30);
  });
});
