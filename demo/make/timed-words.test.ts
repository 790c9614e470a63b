import { describe, expect, it } from 'vitest';
import { PRACTICE_SENTENCES } from '../../contract/practice.ts';
import { timedWords } from './timed-words.ts';

describe('timedWords', () => {
  it('shares the time between two pauses out by letters', () => {
    const words = timedWords('Go on. Now stop.', 'pau:0.100 g:0.300 o:0.900 pau:1.000 n:1.200 s:2.000 pau:2.500');
    expect(words).toEqual([
      { word: 'Go', start: 0.1, end: 0.42 },
      { word: 'on.', start: 0.42, end: 0.9 },
      { word: 'Now', start: 1, end: 1.375 },
      { word: 'stop.', start: 1.375, end: 2 },
    ]);
  });

  it('takes the whole as one where pauses and stops differ', () => {
    const words = timedWords('Go. On', 'g:0.500 o:1.000');
    expect([words[0]!.start, words.at(-1)!.end]).toEqual([0, 1]);
  });
});

describe('the practice sentences', () => {
  it.each(PRACTICE_SENTENCES)('“$text” has all its words in order', ({ text, words }) => {
    expect(words.map(({ word }) => word).join(' ')).toBe(text);
    let last = 0;
    for (const { start, end } of words) {
      expect(start).toBeGreaterThanOrEqual(last);
      expect(end).toBeGreaterThan(start);
      last = end;
    }
  });
});
