import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { anchorHolds, compareAnchors, CONTEXT_LENGTH, passageAnchor, type Anchor } from './index.ts';

const text = 'The tide turns. 🦀 The tide turns again, as it must.\n';
const arbitraryText = fc.string({ unit: 'grapheme', minLength: 1, maxLength: 120 });
const splits = (whole: string, offset: number): boolean =>
  /[\uD800-\uDBFF][\uDC00-\uDFFF]/.test(whole.slice(offset - 1, offset + 1)) && offset > 0;

describe('passageAnchor', () => {
  it('keeps the words with what stands around them (the example of the W3C model has the same parts)', () => {
    expect(passageAnchor(text, 19, 33)).toEqual({
      type: 'passage',
      start: 19,
      end: 33,
      quote: { exact: 'The tide turns', prefix: 'The tide turns. 🦀 ', suffix: ' again, as it must.\n' },
    });
  });

  it('leaves out white space at both ends, and is nothing where there is nothing else', () => {
    expect(passageAnchor(text, 15, 20)).toMatchObject({ start: 16, end: 20, quote: { exact: '🦀 T' } });
    expect(passageAnchor(text, 15, 16)).toBeUndefined();
    expect(passageAnchor(text, 4, 4)).toBeUndefined();
  });

  it('never cuts a character in two', () => {
    expect(passageAnchor(text, 17, 18)).toMatchObject({ start: 16, end: 18, quote: { exact: '🦀' } });
  });

  it.each([
    [-1, 3],
    [3, 1000],
    [5, 4],
    [1.5, 3],
  ])('refuses %d to %d', (start, end) => {
    expect(() => passageAnchor(text, start, end)).toThrow(RangeError);
  });

  it('always holds in its own text, with whole characters and a bounded context', () => {
    fc.assert(
      fc.property(arbitraryText, fc.nat(120), fc.nat(120), (whole, a, b) => {
        const [start, end] = [Math.min(a, b, whole.length), Math.min(Math.max(a, b), whole.length)];
        const anchor = passageAnchor(whole, start, end);
        if (!anchor) {
          expect(whole.slice(start, end).trim()).toBe('');
          return;
        }
        expect(anchorHolds(whole, anchor)).toBe(true);
        const { prefix, suffix, exact } = anchor.quote;
        for (const offset of [anchor.start, anchor.end, anchor.start - prefix.length, anchor.end + suffix.length])
          expect(splits(whole, offset)).toBe(false);
        expect(prefix.length).toBeLessThanOrEqual(CONTEXT_LENGTH);
        expect(suffix.length).toBeLessThanOrEqual(CONTEXT_LENGTH);
        expect(exact).toBe(exact.trim());
      }),
    );
  });
});

describe('anchorHolds', () => {
  const anchor = passageAnchor(text, 19, 33)!;

  it('does not take the same words at another place', () => {
    expect(anchorHolds(text, { ...anchor, start: 0, end: 14 })).toBe(false);
  });

  it('does not take changed words, changed context, or nothing', () => {
    expect(anchorHolds(text.replace('turns again', 'turns often'), anchor)).toBe(false);
    expect(anchorHolds('', anchor)).toBe(false);
    expect(anchorHolds(text, { type: 'passage', start: 0, end: 0, quote: { exact: '', prefix: '', suffix: '' } })).toBe(
      false,
    );
  });

  it('always takes the whole work', () => {
    expect(anchorHolds('', { type: 'whole' })).toBe(true);
  });
});

describe('compareAnchors', () => {
  it('puts the whole work first, then reads on, the longer passage first', () => {
    const at = (start: number, end: number): Anchor => ({
      type: 'passage',
      start,
      end,
      quote: { exact: 'x', prefix: '', suffix: '' },
    });
    const sorted: Anchor[] = [{ type: 'whole' }, at(1, 9), at(1, 3), at(2, 4)];
    expect([...sorted].reverse().sort(compareAnchors)).toEqual(sorted);
  });
});
