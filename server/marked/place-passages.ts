import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { stretchesOf, type AboutMark, type Mark, type PlaceOnPage, type Stretch } from '#core/marked';
import { PDF_FILES } from '../documents/pdf-files.ts';
import { lettersOn, pageLetters, type LineBox, type PageLetter } from '../documents/page-letters.ts';

/** A line of a page and which part of its text a passage covers, in UTF-16 offsets. */
export interface PassageLine extends LineBox {
  text: string;
  from: number;
  to: number;
}

/** A mark of which it is not known yet where its letters stand. */
export type UnplacedMark = Mark | (AboutMark & { type: 'passage'; lines: PassageLine[] });

/** Highlights exactly the letters of each passage, as the PDF draws them. */
export async function placePassages(marks: readonly UnplacedMark[], pdf: Uint8Array | undefined): Promise<Mark[]> {
  const letters = await lettersOfPages(
    new Set(marks.flatMap((mark) => (mark.type === 'passage' ? [mark.page] : []))),
    pdf,
  );
  return marks.map((mark): Mark => {
    if (mark.type !== 'passage') return mark;
    const { lines, ...about } = mark;
    const page = letters.get(mark.page) ?? [];
    return { ...about, type: 'highlight', quads: lines.flatMap((line) => quadsOf(line, page)) };
  });
}

async function lettersOfPages(
  pages: ReadonlySet<number>,
  pdf: Uint8Array | undefined,
): Promise<Map<number, PageLetter[]>> {
  const letters = new Map<number, PageLetter[]>();
  if (!pdf || pages.size === 0) return letters;
  const loading = getDocument({ ...PDF_FILES, data: new Uint8Array(pdf) });
  try {
    const document = await loading.promise;
    for (const index of pages) {
      const page = await document.getPage(index + 1);
      letters.set(index, await pageLetters(page));
      page.cleanup();
    }
  } catch {
    // A page that is broken is marked by its lines alone.
  } finally {
    await loading.destroy();
  }
  return letters;
}

/** Four corners for each stretch of a line: the upper two first, as most readers expect them. */
function quadsOf(line: PassageLine, page: readonly PageLetter[]): PlaceOnPage[][] {
  const { text, x, y, width, height, angle = 0, from, to } = line;
  const byShare = (): Stretch[] => [[(from / text.length) * width, (to / text.length) * width]];
  const turn = (angle * Math.PI) / 180;
  const corner = (across: number, down: number): PlaceOnPage => [
    x + across * Math.cos(turn) - down * Math.sin(turn),
    y + across * Math.sin(turn) + down * Math.cos(turn),
  ];
  return (stretchesOf(text, lettersOn(line, page), { from, to }) ?? byShare()).map(([left, right]) => [
    ...[corner(left, 0), corner(right, 0)],
    ...[corner(left, height), corner(right, height)],
  ]);
}
