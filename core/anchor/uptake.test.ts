import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { wordChanges } from './index.ts';

const joined = (changes: ReturnType<typeof wordChanges>, without: string): string =>
  changes
    .filter(({ type }) => type !== without)
    .map(({ text }) => text)
    .join('');

const arbitraryWords = fc
  .array(fc.constantFrom('tide', 'turns', 'the', 'a', 'ebb,', '“mud”', 'naïve', '🦀', 'well-known'), { maxLength: 14 })
  .map((words) => words.join(' '));

describe('wordChanges', () => {
  it('is the old passage without what is new, and the new one without what was struck', () => {
    fc.assert(
      fc.property(arbitraryWords, arbitraryWords, (before, after) => {
        const changes = wordChanges(before, after);
        expect(joined(changes, 'new')).toBe(before);
        expect(joined(changes, 'struck')).toBe(after);
        for (const [index, { type, text }] of changes.entries()) {
          expect(text).not.toBe('');
          expect(changes[index - 1]?.type).not.toBe(type);
        }
      }),
    );
  });

  it('keeps what is alike and reads in phrases', () => {
    expect(wordChanges('It does not explain the lower ones.', 'It cannot explain the lower ones.')).toEqual([
      { type: 'kept', text: 'It ' },
      { type: 'struck', text: 'does not' },
      { type: 'new', text: 'cannot' },
      { type: 'kept', text: ' explain the lower ones.' },
    ]);
    expect(wordChanges('same', 'same')).toEqual([{ type: 'kept', text: 'same' }]);
    expect(wordChanges('', '')).toEqual([]);
  });
});
