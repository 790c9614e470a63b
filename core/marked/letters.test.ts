import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stretchesOf, type DrawnLetter } from './letters.ts';

/** Letters drawn from left to right, each as wide as its place in the alphabet, so that no share of the line is right by chance. */
function drawn(texts: readonly string[]): DrawnLetter[] {
  let left = 10;
  return texts.map((text) => {
    const letter = { text, left, right: left + 2 + ((text.codePointAt(0) ?? 0) % 7) };
    left = letter.right;
    return letter;
  });
}
const edges = (letters: readonly DrawnLetter[], from: number, to: number): [number, number] => [
  letters[from]!.left,
  letters[to - 1]!.right,
];

describe('where a part of a line is drawn', () => {
  it('is from the edge of its first letter to the edge of its last, whatever the letters are', () => {
    const words = fc.array(fc.stringMatching(/^[a-z]{1,8}$/u), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(words, fc.nat(), fc.nat(), (all, one, other) => {
        const text = all.join(' ');
        const letters = drawn([...text]);
        const places = [...text].flatMap((letter, at) => (letter === ' ' ? [] : [at]));
        const [first, last] = [one, other].map((at) => places[at % places.length]!).sort((a, b) => a - b);
        expect(stretchesOf(text, letters, { from: first!, to: last! + 1 })).toEqual([
          edges(letters, first!, last! + 1),
        ]);
      }),
    );
  });

  it('counts a ligature as all of its letters', () => {
    const letters = drawn(['o', 'ﬀ', 'i', 'c', 'e']);
    expect(stretchesOf('office', letters, { from: 1, to: 3 })).toEqual([edges(letters, 1, 2)]);
    expect(stretchesOf('office', letters, { from: 3, to: 6 })).toEqual([edges(letters, 2, 5)]);
  });

  it('does not need spaces, and bears a letter that is missing on either side', () => {
    const letters = drawn([...'theferryleavesatnoon']);
    expect(stretchesOf('the ferry leaves at noon', letters, { from: 10, to: 16 })).toEqual([edges(letters, 8, 14)]);
    const more = drawn([...'•the ferry']);
    expect(stretchesOf('the ferry', more, { from: 4, to: 9 })).toEqual([edges(more, 5, 10)]);
  });

  it('follows words from right to left, and is in two stretches where both directions meet', () => {
    const arabic = drawn([...'رحبلا']);
    expect(stretchesOf('البحر', arabic, { from: 0, to: 2 })).toEqual([edges(arabic, 3, 5)]);
    // On the page from left to right: a word, a number, a word; read from the right.
    const mixed = drawn([...'دم 42 رحب']);
    expect(stretchesOf('بحر 42 مد', mixed, { from: 0, to: 6 })).toEqual([edges(mixed, 3, 9)]);
    expect(stretchesOf('بحر 42 مد', mixed, { from: 0, to: 5 })).toEqual([edges(mixed, 3, 4), edges(mixed, 6, 9)]);
  });

  it('is unknown where other letters are drawn', () => {
    expect(stretchesOf('the ferry', drawn([...'WAVY COAST']), { from: 0, to: 3 })).toBeUndefined();
    expect(stretchesOf('the ferry', [], { from: 0, to: 3 })).toBeUndefined();
  });
});
