import { describe, expect, it } from 'vitest';
import { locatePassage } from './index.ts';

const text = 'The tide turns. The birds know. The tide turns again, “slowly” – and so do we.';
const words = (query: Parameters<typeof locatePassage>[1]): string | undefined => {
  const place = locatePassage(text, query);
  return place && text.slice(place.start, place.end);
};

describe('locatePassage', () => {
  it('takes offsets alone, and the words where both agree', () => {
    expect(words({ start: 4, end: 8 })).toBe('tide');
    expect(locatePassage(text, { start: 32, end: 46, exact: 'The tide turns' })).toEqual({ start: 32, end: 46 });
  });

  it('chooses among equal words by what stands around them, then by nearness', () => {
    const exact = 'The tide turns';
    expect(locatePassage(text, { exact, suffix: ' again' })!.start).toBe(32);
    expect(locatePassage(text, { exact, prefix: 'know. ' })!.start).toBe(32);
    expect(locatePassage(text, { exact, start: 30, end: 40 })!.start).toBe(32);
    expect(locatePassage(text, { exact })!.start).toBe(0);
  });

  it('forgives other quotes, dashes and white space, and no other words', () => {
    expect(words({ exact: '"slowly" - and\nso' })).toBe('“slowly” – and so');
    expect(words({ exact: 'slowly and so' })).toBeUndefined();
  });

  it('takes signs of patterns for what they are', () => {
    expect(locatePassage('a (b) [c] a.c', { exact: '(b)  [c]' })).toEqual({ start: 2, end: 9 });
    expect(locatePassage('abc', { exact: 'a.c' })).toBeUndefined();
  });

  it.each([
    [{}],
    [{ start: 5, end: 5 }],
    [{ start: -1, end: 3 }],
    [{ start: 0, end: 1000 }],
    [{ exact: '' }],
    [{ exact: '   ' }],
  ])('finds nothing for %o', (query) => {
    expect(words(query)?.trim() || undefined).toBeUndefined();
  });
});
