import { describe, expect, it } from 'vitest';
import { linesOf } from './index.ts';

/** Words of 0.3 s with 0.1 s between them; a number is so many seconds more of silence. */
function spokenWords(...parts: (string | number)[]) {
  let at = 0;
  return parts.flatMap((part) => {
    if (typeof part === 'number') {
      at += part;
      return [];
    }
    const start = at;
    at = start + 0.4;
    return [{ word: part, start, end: start + 0.3 }];
  });
}

describe('the lines of what was said', () => {
  it('end where a sentence does, also behind quotation marks and in other scripts', () => {
    const words = spokenWords('Where', 'is', 'it?', '“Here.”', 'هل', 'هنا؟', 'Yes');
    expect(linesOf(words).map(({ text }) => text)).toEqual(['Where is it?', '“Here.”', 'هل هنا؟', 'Yes']);
  });

  it('end at a long pause where nothing else says so, and have their times', () => {
    const lines = linesOf(spokenWords('one', 'two', 1.2, 'three'));
    expect(lines).toMatchObject([{ text: 'one two', start: 0 }, { text: 'three' }]);
    expect(lines[0]!.end).toBeCloseTo(0.7);
    expect(lines[1]!.start).toBeCloseTo(2);
  });

  it('are none where no word has a time', () => {
    expect(linesOf([])).toEqual([]);
  });
});
