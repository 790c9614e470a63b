import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { hourIn, isQuiet, NEWS_KINDS, newsSentence } from './index.ts';

const hour = fc.integer({ min: 0, max: 23 });

describe('quiet hours', () => {
  it('go over midnight', () => {
    const night = { from: 20, to: 7 };
    expect([19, 20, 23, 0, 6, 7].map((at) => isQuiet(at, night))).toEqual([false, true, true, true, true, false]);
  });

  it('are as many as there are from one hour to the other', () => {
    fc.assert(
      fc.property(hour, hour, (from, to) => {
        const quiet = Array.from({ length: 24 }, (_, at) => at).filter((at) => isQuiet(at, { from, to }));
        return quiet.length === (to - from + 24) % 24;
      }),
    );
  });

  // Offsets of the IANA time zone database: Kathmandu is at +05:45 all year, Auckland at +13:00 in January.
  it('are those of the place where somebody is', () => {
    const at = new Date('2026-01-15T12:30:00Z');
    expect(['UTC', 'Asia/Kathmandu', 'Pacific/Auckland'].map((zone) => hourIn(at, zone))).toEqual([12, 18, 1]);
    expect(hourIn(new Date('2026-01-15T00:10:00Z'), 'UTC')).toBe(0);
    expect(() => hourIn(at, 'Nowhere/At all')).toThrow(RangeError);
  });
});

describe('what is new', () => {
  it('is one sentence, for one and for several', () => {
    expect(newsSentence({ kind: 'returned', assignment: 'A walk', count: 1 })).toBe('Your work came back: A walk.');
    expect(newsSentence({ kind: 'handedIn', assignment: 'A walk', count: 1 })).toBe('One work came in: A walk.');
    expect(newsSentence({ kind: 'asked', assignment: 'A walk', count: 3 })).toBe('3 answers from students: A walk.');
    for (const kind of NEWS_KINDS) expect(newsSentence({ kind, assignment: 'A', count: 2 })).toMatch(/^\S.*: A\.$/);
  });
});
