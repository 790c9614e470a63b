import { describe, expect, it } from 'vitest';
import { passageAnchor, withSuggestions } from './index.ts';

const TEXT = 'The reason is obvious. Nobody looked.\n';
const suggest = (words: string, suggestion: string | null) => {
  const start = TEXT.indexOf(words);
  return { anchor: passageAnchor(TEXT, start, start + words.length)!, suggestion };
};

describe('withSuggestions', () => {
  it('puts the new words in the place of the old, whatever their order', () => {
    const taken = [suggest('Nobody', 'No one'), suggest('obvious', 'likely')];
    expect(withSuggestions(TEXT, taken)).toBe('The reason is likely. No one looked.\n');
  });

  it('takes words out, and leaves the text alone where nothing is suggested', () => {
    expect(withSuggestions(TEXT, [suggest('Nobody looked.', '')])).toBe('The reason is obvious. \n');
    expect(withSuggestions(TEXT, [suggest('reason', null), { anchor: { type: 'whole' }, suggestion: 'x' }])).toBe(TEXT);
  });

  it('takes the first of two that change the same words', () => {
    expect(withSuggestions(TEXT, [suggest('is obvious', 'may be'), suggest('obvious', 'clear')])).toBe(
      'The reason may be. Nobody looked.\n',
    );
  });
});
