import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { folioOf, type Folio } from '#core/folio';
import {
  anchorHolds,
  anchorOfTarget,
  annotationTarget,
  codePoints,
  passageAnchor,
  utf16Offset,
  type Anchor,
} from './index.ts';

const WORK = 'urn:uuid:6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const folio: Folio = folioOf([
  {
    name: 'a',
    format: 'pptx',
    title: '',
    leaves: [
      {
        kind: 'text',
        label: '',
        blocks: [{ type: 'paragraph', runs: [{ text: 'The 🦀 tide turns, 🦀🦀 it must.', marks: [] }] }],
      },
      { kind: 'picture', label: '', picture: 0, width: 3, height: 2 },
      { kind: 'sound', label: '', duration: 60, video: false },
      {
        kind: 'sheet',
        label: '',
        rows: [
          [{ text: 'a' }, { text: 'b' }],
          [{ text: 'c' }, { text: 'd' }],
        ],
      },
      { kind: 'answer', label: '', question: 'q', prompt: '', blocks: [] },
    ],
  },
]);

describe('offsets of the open format', () => {
  it('count code points as the language does, and come back', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'binary', maxLength: 60 }), (text) => {
        let at = 0;
        [...text].forEach((character, index) => {
          expect(codePoints(text, at)).toBe(index);
          expect(utf16Offset(text, index)).toBe(at);
          at += character.length;
        });
      }),
    );
  });
});

describe('an annotation’s target', () => {
  it.each<[string, Anchor, string]>([
    // Media Fragments URI 1.0, sections 4.2.2 and 4.2.1; RFC 7111, section 2.1: rows and columns from 1.
    ['a box', { type: 'region', leaf: 1, x: 0.25, y: 0.5, width: 0.125, height: 0.1 }, 'xywh=percent:25,50,12.5,10'],
    ['a stretch', { type: 'span', leaf: 2, start: 10, end: 20.5 }, 't=10,20.5'],
    ['cells', { type: 'cells', leaf: 3, top: 0, left: 1, bottom: 1, right: 1 }, 'cell=1,2-2,2'],
  ])('says %s as a fragment, and is read back', (_, anchor, value) => {
    const target = annotationTarget(folio, WORK, anchor);
    expect(target).toMatchObject({ selector: { type: 'FragmentSelector', value } });
    expect(anchorOfTarget(folio, WORK, target)).toEqual(anchor);
  });

  it.each<[Anchor]>([[{ type: 'whole' }], [{ type: 'answer', question: 'q' }]])('has no selector for %o', (anchor) => {
    const target = annotationTarget(folio, WORK, anchor);
    expect(target.selector).toBeUndefined();
    expect(anchorOfTarget(folio, WORK, target)).toEqual(anchor);
  });

  it('says words by position and by quote, and is read back', () => {
    fc.assert(
      fc.property(fc.nat(folio.text.length), fc.nat(folio.text.length), (a, b) => {
        const anchor = passageAnchor(folio.text, Math.min(a, b), Math.max(a, b));
        if (!anchor) return;
        const back = anchorOfTarget(folio, WORK, annotationTarget(folio, WORK, anchor));
        expect(back).toEqual(anchor);
        expect(anchorHolds(folio, back!)).toBe(true);
      }),
    );
    const crabs = passageAnchor(folio.text, folio.text.indexOf('🦀🦀'), folio.text.indexOf('🦀🦀') + 4)!;
    expect(annotationTarget(folio, WORK, crabs).selector).toMatchObject([{ start: 18, end: 20 }, { exact: '🦀🦀' }]);
  });

  it('finds words by their quote where the position is off, and nothing of another work or place', () => {
    const quote = { type: 'TextQuoteSelector', exact: 'tide turns' };
    expect(
      anchorOfTarget(folio, WORK, {
        source: WORK,
        selector: [{ type: 'TextPositionSelector', start: 0, end: 3 }, quote],
      }),
    ).toMatchObject({ start: 7 });
    expect(anchorOfTarget(folio, WORK, { source: WORK, selector: { ...quote, exact: 'elsewhere' } })).toBeUndefined();
    expect(anchorOfTarget(folio, WORK, { source: 'urn:uuid:other' })).toBeUndefined();
    const outside = { type: 'FragmentSelector', value: 't=10,90' };
    expect(anchorOfTarget(folio, WORK, { source: `${WORK}#leaf-2`, selector: outside })).toBeUndefined();
    expect(anchorOfTarget(folio, WORK, { source: `${WORK}#leaf-9`, selector: outside })).toBeUndefined();
    expect(anchorOfTarget(folio, WORK, { source: `${WORK}#other`, selector: outside })).toBeUndefined();
  });
});
