import { describe, expect, it } from 'vitest';
import { hints } from './index.ts';

const TEXT =
  'The bladderwrack grows on the mudflats. We asked Mrs Anstey about the wrack, and about mudflats again in 1987.';

describe('hints for a recogniser', () => {
  it('are the names first, then the longest words, each once', () => {
    const all = hints(['Mirza Hadžić'], TEXT, 100);
    expect(all.slice(0, 4)).toEqual(['Mirza', 'Hadžić', 'Mrs', 'Anstey']);
    expect(all.slice(4)).toEqual(['bladderwrack', 'mudflats']);
  });

  it('are no more than are wanted', () => {
    expect(hints(['Mirza Hadžić'], TEXT, 3)).toHaveLength(3);
    expect(hints([], '', 3)).toEqual([]);
  });
});
