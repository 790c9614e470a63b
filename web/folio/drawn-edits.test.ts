import { describe, expect, it } from 'vitest';
import { drawnEdits } from './drawn-edits.ts';

const TEXT = 'The reason is obvious to all.';
const edits = (exact: string, suggestion: string) => {
  const start = TEXT.indexOf(exact);
  return drawnEdits({
    id: 'a',
    kind: 'repair',
    anchor: { type: 'passage', start, end: start + exact.length, quote: { exact, prefix: '', suffix: '' } },
    suggestion,
  });
};
/** What a reader sees: struck words are gone, words put in are there. */
function applied(exact: string, suggestion: string): string {
  const start = TEXT.indexOf(exact);
  let result = '';
  for (let at = start; at < start + exact.length; at++) {
    const here = edits(exact, suggestion).filter((edit) => edit.start <= at && edit.end > at);
    result += here.map(({ before, start }) => (start === at ? (before ?? '') : '')).join('');
    if (!here.some(({ struck }) => struck)) result += TEXT[at];
    result += here.map(({ after, end }) => (end === at + 1 ? (after ?? '') : '')).join('');
  }
  return result;
}

describe('a suggestion as it is drawn', () => {
  it.each([
    ['obvious', 'likely'],
    ['is obvious', 'is not obvious'],
    ['reason is obvious to all', 'cause is clear to most'],
    ['reason', 'main reason'],
    ['obvious to all', ''],
    ['The reason', 'Perhaps the reason'],
  ])('“%s” becomes “%s”', (exact, suggestion) => {
    expect(applied(exact, suggestion)).toBe(suggestion);
  });

  it('is nothing for other remarks', () => {
    expect(drawnEdits({ id: 'a', kind: 'repair', anchor: { type: 'whole' }, suggestion: 'x' })).toEqual([]);
    expect(edits('obvious', 'obvious')).toEqual([]);
  });
});
