import { OPS, type PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { DrawnLetter } from '#core/marked';

/** A letter as a page draws it: both ends of its baseline, in points from the upper left corner of the page. */
export interface PageLetter {
  text: string;
  from: { x: number; y: number };
  to: { x: number; y: number };
}

type Matrix = readonly number[];
const IDENTITY: Matrix = [1, 0, 0, 1, 0, 0];

/** ISO 32000-2, section 8.3.4: what `inner` maps, seen through `outer`. */
const through = ([a, b, c, d, e, f]: Matrix, [g, h, i, j, k, l]: Matrix): Matrix => [
  ...[a! * g! + c! * h!, b! * g! + d! * h!],
  ...[a! * i! + c! * j!, b! * i! + d! * j!],
  ...[a! * k! + c! * l! + e!, b! * k! + d! * l! + f!],
];
const placeIn = ([a, b, c, d, e, f]: Matrix, x: number, y: number): { x: number; y: number } => ({
  x: a! * x + c! * y + e!,
  y: b! * x + d! * y + f!,
});

interface Glyph {
  unicode: string;
  /** Thousandths of the size of the font. */
  width: number;
  isSpace: boolean;
}

/** The graphics state, as far as text depends on it: ISO 32000-2, tables 51 and 102. */
interface State {
  ctm: Matrix;
  text: Matrix;
  line: readonly [x: number, y: number];
  at: readonly [x: number, y: number];
  font: number;
  /** Units of the font's glyph space in one of text space. */
  unit: number;
  vertical: boolean;
  letterSpace: number;
  wordSpace: number;
  stretch: number;
  leading: number;
  rise: number;
}

const START: Omit<State, 'ctm'> = {
  ...{ text: IDENTITY, line: [0, 0], at: [0, 0], font: 0, unit: 0.001, vertical: false },
  ...{ letterSpace: 0, wordSpace: 0, stretch: 1, leading: 0, rise: 0 },
};

/** Every letter that a page draws, as the operators of its content place it (ISO 32000-2, section 9.4.4). */
export async function pageLetters(page: PDFPageProxy): Promise<PageLetter[]> {
  const { fnArray, argsArray } = await page.getOperatorList();
  const letters: PageLetter[] = [];
  const stack: State[] = [];
  let state: State = { ...START, ctm: page.getViewport({ scale: 1 }).transform as Matrix };
  const ground = state;
  const set = (change: Partial<State>): void => void (state = { ...state, ...change });
  const moveBy = (x: number, y: number): void => {
    const place = [state.line[0] + x, state.line[1] + y] as const;
    set({ line: place, at: place });
  };
  const setFont = (name: string, size: number): void => {
    const font = page.commonObjs.has(name)
      ? (page.commonObjs.get(name) as { fontMatrix?: number[]; vertical?: boolean })
      : {};
    set({ font: size, unit: font.fontMatrix?.[0] ?? 0.001, vertical: font.vertical === true });
  };
  const into = (matrix: Matrix | null | undefined): void => {
    if (matrix) set({ ctm: through(state.ctm, matrix) });
  };

  fnArray.forEach((operator, index) => {
    const args = (argsArray[index] ?? []) as never[];
    const numbers = args as readonly number[];
    switch (operator) {
      case OPS.save:
        stack.push(state);
        return;
      case OPS.restore:
      case OPS.paintFormXObjectEnd:
      case OPS.endAnnotation:
        state = stack.pop() ?? ground;
        return;
      case OPS.transform:
        return into(numbers);
      case OPS.paintFormXObjectBegin:
        stack.push(state);
        return into(args[0]);
      case OPS.beginAnnotation:
        stack.push(state);
        state = ground;
        into(args[2]);
        return into(args[3]);
      case OPS.beginText:
        return set({ text: IDENTITY, line: [0, 0], at: [0, 0] });
      case OPS.setFont:
        return setFont(args[0]!, numbers[1]!);
      case OPS.setGState:
        for (const [key, value] of args[0]! as readonly [string, [string, number]][])
          if (key === 'Font') setFont(...value);
        return;
      case OPS.setCharSpacing:
        return set({ letterSpace: numbers[0]! });
      case OPS.setWordSpacing:
        return set({ wordSpace: numbers[0]! });
      case OPS.setHScale:
        return set({ stretch: numbers[0]! / 100 });
      case OPS.setLeading:
        return set({ leading: numbers[0]! });
      case OPS.setTextRise:
        return set({ rise: numbers[0]! });
      case OPS.setTextMatrix:
        return set({ text: [...(args[0]! as Iterable<number>)], line: [0, 0], at: [0, 0] });
      case OPS.moveText:
        return moveBy(numbers[0]!, numbers[1]!);
      case OPS.setLeadingMoveText:
        set({ leading: -numbers[1]! });
        return moveBy(numbers[0]!, numbers[1]!);
      case OPS.nextLine:
        return moveBy(0, -state.leading);
      case OPS.showText: {
        const { end, shown } = show(state, args[0]! as readonly (Glyph | number)[]);
        letters.push(...shown);
        return set({ at: [end, state.at[1]] });
      }
    }
  });
  return letters;
}

function show(state: State, glyphs: readonly (Glyph | number)[]): { end: number; shown: PageLetter[] } {
  const { text, ctm, at, font, unit, stretch, rise, vertical } = state;
  const all = through(ctm, text);
  const shown: PageLetter[] = [];
  let x = at[0];
  for (const glyph of glyphs) {
    if (typeof glyph === 'number') {
      x -= (glyph * font * stretch) / 1000;
      continue;
    }
    const wide = glyph.width * unit * font * stretch;
    if (!vertical)
      shown.push({
        text: glyph.unicode,
        from: placeIn(all, x, at[1] + rise),
        to: placeIn(all, x + wide, at[1] + rise),
      });
    x += wide + (state.letterSpace + (glyph.isSpace ? state.wordSpace : 0)) * stretch;
  }
  return { end: x, shown };
}

/** A line of a page: a box that is turned around its upper left corner, in points and degrees clockwise. */
export interface LineBox {
  x: number;
  y: number;
  width: number;
  height: number;
  angle?: number | undefined;
}

/** How far below the upper edge of a line its letters may stand, as shares of its height. */
const BASELINE = { least: 0.4, most: 1.15 };

/** The letters that stand on a line, each with its place along it. */
export function lettersOn({ x, y, width, height, angle = 0 }: LineBox, letters: readonly PageLetter[]): DrawnLetter[] {
  const turn = (angle * Math.PI) / 180;
  const [cos, sin] = [Math.cos(turn), Math.sin(turn)];
  return letters.flatMap(({ text, from, to }) => {
    const along = (place: { x: number; y: number }): number => (place.x - x) * cos + (place.y - y) * sin;
    const down = ((from.y - y) * cos - (from.x - x) * sin) / height;
    if (down < BASELINE.least || down > BASELINE.most) return [];
    const [left, right] = [Math.min(along(from), along(to)), Math.max(along(from), along(to))];
    const middle = (left + right) / 2;
    return middle > -0.5 && middle < width + 0.5 ? [{ text, left, right }] : [];
  });
}
