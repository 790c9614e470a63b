import {
  PDFHexString,
  PDFName,
  PDFOperator,
  PDFOperatorNames,
  PDFNumber,
  type PDFDocument,
  type PDFPage,
  type PDFRef,
} from '@cantoo/pdf-lib';

/** A word of a picture; points from the upper left corner of its page. */
export interface PicturedWord {
  text: string;
  left: number;
  top: number;
  right: number;
  bottom: number;
}

/** Width of every letter of the font, in thousandths of its size. */
const LETTER = 500;
/** The baseline's height above the bottom of a word's box, as a share of the box. */
const BASELINE = 0.22;
/** Text that is neither filled nor stroked: ISO 32000-2, table 104. */
const UNSEEN = 3;

/** A font without shapes: text that is set in it cannot be seen, but can be searched, selected and read aloud. */
export interface UnseenFont {
  ref: PDFRef;
  /** What stands for each character. */
  codes: ReadonlyMap<string, number>;
}

/** So many characters may be in one list of a CMap: Adobe Technical Note 5014, section 1.4.1. */
const IN_A_LIST = 100;

/**
 * Makes a font for the characters of words (ISO 32000-2, sections 9.7.4 and 9.10.3).
 * @throws RangeError for more than 65,535 different ones
 */
export function unseenFont({ context }: PDFDocument, words: readonly PicturedWord[]): UnseenFont {
  const characters = [...new Set([' ', ...words.flatMap(({ text }) => [...text])])];
  if (characters.length > 0xffff) throw new RangeError('Too many different characters');
  const codes = new Map(characters.map((character, index) => [character, index + 1]));
  const lists = Array.from({ length: Math.ceil(characters.length / IN_A_LIST) }, (_, list) => {
    const some = characters.slice(list * IN_A_LIST, (list + 1) * IN_A_LIST);
    const pairs = some.map((character) => `<${hex(codes.get(character)!)}> <${utf16(character)}>`);
    return `${some.length} beginbfchar\n${pairs.join('\n')}\nendbfchar`;
  });
  const meanings = `/CIDInit /ProcSet findresource begin 12 dict begin begincmap
/CIDSystemInfo << /Registry (Adobe) /Ordering (UCS) /Supplement 0 >> def
/CMapName /Adobe-Identity-UCS def /CMapType 2 def
1 begincodespacerange <0000> <FFFF> endcodespacerange
${lists.join('\n')}
endcmap CMapName currentdict /CMap defineresource pop end end`;
  const descriptor = context.register(
    context.obj({
      ...{ Type: 'FontDescriptor', FontName: 'Unseen', Flags: 5, FontBBox: [0, 0, LETTER, 1000], ItalicAngle: 0 },
      ...{ Ascent: 1000, Descent: 0, CapHeight: 1000, StemV: 80 },
    }),
  );
  const letters = context.register(
    context.obj({
      ...{ Type: 'Font', Subtype: 'CIDFontType2', BaseFont: 'Unseen', FontDescriptor: descriptor, DW: LETTER },
      CIDSystemInfo: {
        Registry: PDFHexString.fromText('Adobe'),
        Ordering: PDFHexString.fromText('Identity'),
        Supplement: 0,
      },
      CIDToGIDMap: 'Identity',
    }),
  );
  const ref = context.register(
    context.obj({
      ...{ Type: 'Font', Subtype: 'Type0', BaseFont: 'Unseen', Encoding: 'Identity-H', DescendantFonts: [letters] },
      ToUnicode: context.register(context.flateStream(meanings)),
    }),
  );
  return { ref, codes };
}

const hex = (code: number): string => code.toString(16).padStart(4, '0');
const utf16 = (text: string): string =>
  Array.from({ length: text.length }, (_, at) => hex(text.charCodeAt(at))).join('');

/** Writes words over a picture of them: each as wide as it is there. */
export function writeUnseen(page: PDFPage, { ref, codes }: UnseenFont, words: readonly PicturedWord[]): void {
  if (words.length === 0) return;
  const name = PDFName.of('Unseen');
  page.node.setFontDictionary(name, ref);
  const height = page.getHeight();
  const operator = (key: PDFOperatorNames, ...operands: (number | PDFName | PDFHexString)[]): PDFOperator =>
    PDFOperator.of(
      key,
      operands.map((value) => (typeof value === 'number' ? PDFNumber.of(Math.round(value * 100) / 100) : value)),
    );
  page.pushOperators(
    operator(PDFOperatorNames.PushGraphicsState),
    operator(PDFOperatorNames.BeginText),
    operator(PDFOperatorNames.SetTextRenderingMode, UNSEEN),
    ...words.flatMap(({ text, left, top, right, bottom }) => {
      const size = Math.max(1, bottom - top);
      const letters = [...text];
      const natural = (letters.length * size * LETTER) / 1000;
      return [
        operator(PDFOperatorNames.SetFontAndSize, name, size),
        operator(PDFOperatorNames.SetTextHorizontalScaling, ((right - left) / natural) * 100),
        operator(PDFOperatorNames.SetTextMatrix, 1, 0, 0, 1, left, height - bottom + size * BASELINE),
        operator(
          PDFOperatorNames.ShowText,
          PDFHexString.of([...letters, ' '].map((letter) => hex(codes.get(letter) ?? 0)).join('')),
        ),
      ];
    }),
    operator(PDFOperatorNames.EndText),
    operator(PDFOperatorNames.PopGraphicsState),
  );
}
