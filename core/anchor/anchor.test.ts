import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { folioOf, type Folio } from '#core/folio';
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
        expect(anchorHolds({ text: whole, leaves: [] }, anchor)).toBe(true);
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
  const holds = (whole: string, what: Anchor): boolean => anchorHolds({ text: whole, leaves: [] }, what);

  it('does not take the same words at another place', () => {
    expect(holds(text, { ...anchor, start: 0, end: 14 })).toBe(false);
  });

  it('does not take changed words, changed context, or nothing', () => {
    expect(holds(text.replace('turns again', 'turns often'), anchor)).toBe(false);
    expect(holds('', anchor)).toBe(false);
    expect(holds(text, { type: 'passage', start: 0, end: 0, quote: { exact: '', prefix: '', suffix: '' } })).toBe(
      false,
    );
  });

  it('always takes the whole work', () => {
    expect(holds('', { type: 'whole' })).toBe(true);
  });

  it.each<[string, Anchor, boolean]>([
    ['a box on a slide', { type: 'region', leaf: 0, x: 0, y: 0.5, width: 1, height: 0.5 }, true],
    ['a box that reaches over the edge', { type: 'region', leaf: 0, x: 0.6, y: 0, width: 0.5, height: 0.1 }, false],
    ['a box without extent', { type: 'region', leaf: 0, x: 0, y: 0, width: 0, height: 0.1 }, false],
    ['a box on a recording', { type: 'region', leaf: 1, x: 0, y: 0, width: 1, height: 1 }, false],
    ['a stretch of a recording', { type: 'span', leaf: 1, start: 1, end: 9.5 }, true],
    ['a stretch behind its end', { type: 'span', leaf: 1, start: 9, end: 12 }, false],
    ['a stretch that ends before it begins', { type: 'span', leaf: 1, start: 3, end: 3 }, false],
    ['cells of a table', { type: 'cells', leaf: 2, top: 0, left: 1, bottom: 1, right: 1 }, true],
    ['cells that are not there', { type: 'cells', leaf: 2, top: 0, left: 1, bottom: 1, right: 2 }, false],
    ['an answer', { type: 'answer', question: 'q' }, true],
    ['the answer to another question', { type: 'answer', question: 'r' }, false],
    ['a leaf that is not there', { type: 'span', leaf: 9, start: 0, end: 1 }, false],
  ])('judges %s', (_, what, held) => {
    expect(anchorHolds(folio, what)).toBe(held);
  });
});

const folio = folioOf([
  {
    name: 'work',
    format: 'pptx',
    title: '',
    leaves: [
      { kind: 'slide', label: 'Slide 1', width: 100, height: 50, shapes: [], notes: [] },
      { kind: 'sound', label: 'Recording', duration: 10, video: false },
      {
        kind: 'sheet',
        label: 'Table',
        rows: [
          [{ text: 'a' }, { text: 'b' }],
          [{ text: 'c' }, { text: 'd' }],
        ],
      },
      { kind: 'answer', label: 'Question 1', question: 'q', prompt: '?', blocks: [] },
    ],
  },
]);

describe('compareAnchors', () => {
  it('puts the whole work first, then reads on, the longer passage first', () => {
    const words: Folio = folioOf([
      {
        name: 'a',
        format: 'text',
        title: '',
        leaves: [
          { kind: 'text', label: '', blocks: [{ type: 'paragraph', runs: [{ text: '0123456789', marks: [] }] }] },
        ],
      },
    ]);
    const at = (start: number, end: number): Anchor => ({
      type: 'passage',
      start,
      end,
      quote: { exact: 'x', prefix: '', suffix: '' },
    });
    const sorted: Anchor[] = [{ type: 'whole' }, at(1, 9), at(1, 3), at(2, 4)];
    expect([...sorted].reverse().sort(compareAnchors(words))).toEqual(sorted);
  });

  it('goes leaf by leaf, from top to bottom', () => {
    const sorted: Anchor[] = [
      { type: 'region', leaf: 0, x: 0.9, y: 0.1, width: 0.1, height: 0.1 },
      { type: 'region', leaf: 0, x: 0, y: 0.2, width: 0.1, height: 0.1 },
      { type: 'span', leaf: 1, start: 2, end: 3 },
      { type: 'span', leaf: 1, start: 7, end: 8 },
      { type: 'cells', leaf: 2, top: 1, left: 0, bottom: 1, right: 0 },
      { type: 'answer', question: 'q' },
    ];
    expect([...sorted].reverse().sort(compareAnchors(folio))).toEqual(sorted);
  });
});
