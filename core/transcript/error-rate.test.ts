import { describe, expect, it } from 'vitest';
import { paired, wordErrors } from './index.ts';

describe('wordErrors', () => {
  it('counts as in the worked example of the lecture notes on speech and language processing', () => {
    /*
     * Jurafsky & Martin, “Speech and Language Processing”, section on word error rate: 6 substitutions, 3 insertions and
     * 1 deletion over 13 words, 76.9 %. The two sentences (from the CALLHOME corpus) are from memory.
     */
    const reference = 'i um the phone is i left the portable phone upstairs last night';
    const hypothesis = 'i got it to the fullest i love to portable form of stores last night';
    const errors = wordErrors(reference, hypothesis);
    expect(errors).toMatchObject({ substitutions: 6, insertions: 3, deletions: 1, words: 13 });
    expect(errors.rate).toBeCloseTo(0.769, 3);
  });

  it('does not mind capitals and punctuation', () => {
    expect(wordErrors('Look again, please.', 'look again please').rate).toBe(0);
  });

  it('is above one where more was made up than was said, and none where nothing was said', () => {
    expect(wordErrors('yes', 'no no no').rate).toBe(3);
    expect(wordErrors('', 'made up')).toMatchObject({ insertions: 2, rate: null });
  });
});

describe('paired', () => {
  it('goes through both lists in order, once each', () => {
    const from = 'a b c d e f'.split(' ');
    const to = 'a x c c e g h'.split(' ');
    const pairs = paired(from, to);
    expect(pairs.flatMap(([i]) => i ?? [])).toEqual(from.map((_, i) => i));
    expect(pairs.flatMap(([, j]) => j ?? [])).toEqual(to.map((_, j) => j));
  });
});
