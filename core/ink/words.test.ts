import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  areBeside,
  drawOnWords,
  heldFrom,
  keepOnWords,
  linesOfWords,
  offsetAt,
  placeOf,
  type WordBox,
} from './index.ts';
import { boxAround, type DrawnStroke, type InkPoint } from './stroke.ts';

const TEXT =
  'The lowest line was wet and dark, mostly bladder wrack with the air still in it. The middle one was dry on top and ' +
  'damp below, and when I lifted it the sandhoppers jumped. The highest was grey, crisp and full of feathers, rope and ' +
  'the white cases of whelk eggs. I counted eleven kinds of things in one pace of the middle line and only four in the ' +
  'same pace of the lowest. The reason is obvious. Every tide in the week before had been a little lower than the one.';

/** Words set into lines of some width, as a browser sets them: letters of one width, lines of 1.6 times their height. */
function set(width: number, size: number): WordBox[] {
  const letter = size * 0.5;
  const boxes: WordBox[] = [];
  let [x, y] = [0, 0];
  for (const { 0: word, index } of TEXT.matchAll(/\S+/g)) {
    if (x > 0 && x + word.length * letter > width) [x, y] = [0, y + size * 1.6];
    const right = x + word.length * letter;
    boxes.push({ start: index, end: index + word.length, left: x, top: y, right, bottom: y + size });
    x = right + letter;
  }
  return boxes;
}

const HERE = set(640, 18);
/** As at 1280 px, at 320 px, and with letters twice as large. */
const ELSEWHERE = [set(900, 18), set(300, 18), set(640, 36), set(300, 36)];

const wordsOf = (boxes: WordBox[], { start, end }: { start: number; end: number }): WordBox[] =>
  boxes.filter((box) => box.end > start && box.start < end);
const at = (x: number, y: number, time = 0): InkPoint => ({ x, y, pressure: 0.5, at: time });
const pen = (points: InkPoint[]): DrawnStroke => ({ tool: 'pen', colour: 'ink', width: 3, points });

/** A wavy line along some words of one line, so many heights of a letter below their feet. */
function along(first: WordBox, last: WordBox, below: number): DrawnStroke {
  const height = first.bottom - first.top;
  return pen(
    Array.from({ length: 21 }, (_, step) =>
      at(
        first.left + (step / 20) * (last.right - first.left),
        first.bottom + below * height + 0.1 * height * Math.sin(step),
        step / 60,
      ),
    ),
  );
}

/** A loop around what some words take up. */
function loop(words: WordBox[], by = 4): DrawnStroke {
  const { left, top, right, bottom } = boxAround(
    words.flatMap((word) => [
      { x: word.left - by, y: word.top - by },
      { x: word.right + by, y: word.bottom + by },
    ]),
  );
  return pen(
    Array.from({ length: 41 }, (_, step) => {
      const angle = (step / 40) * 2 * Math.PI;
      const [rx, ry] = [(right - left) / 2, (bottom - top) / 2];
      return at((left + right) / 2 + rx * Math.cos(angle), (top + bottom) / 2 + ry * Math.sin(angle), step / 60);
    }),
  );
}

/** Some words that stand on one line here. */
const someWords = fc.constantFrom(...linesOfWords(HERE)).chain(({ words }) =>
  fc.tuple(fc.nat(words.length - 1), fc.nat(words.length - 1)).map(([a, b]) => ({
    words: words.slice(Math.min(a, b), Math.max(a, b) + 1),
    first: words[Math.min(a, b)]!,
    last: words[Math.max(a, b)]!,
  })),
);

describe('places on a line', () => {
  it('are offsets with fractions, and back', () => {
    const lines = linesOfWords(HERE);
    fc.assert(
      fc.property(fc.constantFrom(...lines), fc.double({ min: 0, max: 1, noNaN: true }), (line, share) => {
        const x = line.left + share * (line.right - line.left);
        const found = placeOf(lines, offsetAt(line, x));
        expect(found.line).toBe(line);
        expect(found.x).toBeCloseTo(x);
      }),
    );
  });
});

describe('a stroke on words', () => {
  it('lies where it was drawn while the words stand still', () => {
    fc.assert(
      fc.property(someWords, fc.constantFrom(0.12, -0.4), ({ first, last }, below) => {
        const stroke = along(first, last, below);
        const kept = keepOnWords(stroke, HERE)!;
        const back = drawOnWords(kept.stroke, HERE, kept.start).flatMap(({ points }) => points);
        const [before, after] = [boxAround(stroke.points), boxAround(back)];
        for (const side of ['left', 'top', 'right', 'bottom'] as const)
          expect(Math.abs(after[side] - before[side])).toBeLessThan(1);
      }),
    );
  });

  it.each([
    ['under', 0.12],
    ['through', -0.45],
  ])('%s words stays within half a line of them, and covers them, however they are set', (_, below) => {
    fc.assert(
      fc.property(someWords, fc.constantFrom(...ELSEWHERE), ({ first, last }, there) => {
        const kept = keepOnWords(along(first, last, below), HERE)!;
        expect([kept.start, kept.end]).toEqual([first.start, last.end]);
        const parts = drawOnWords(kept.stroke, there, kept.start);
        const lines = linesOfWords(wordsOf(there, kept));
        expect(parts).toHaveLength(lines.length);
        parts.forEach(({ points }, index) => {
          const line = lines[index]!;
          const box = boxAround(points);
          expect(box.top).toBeGreaterThan(line.top - 0.5 * line.height);
          expect(box.bottom).toBeLessThan(line.bottom + 0.5 * line.height);
          expect(Math.abs(box.left - line.left)).toBeLessThan(0.5 * line.height);
          expect(Math.abs(box.right - line.right)).toBeLessThan(0.5 * line.height);
        });
      }),
    );
  });

  it('around words goes around them line by line, however they are set', () => {
    fc.assert(
      fc.property(someWords, fc.constantFrom(...ELSEWHERE), ({ words, first, last }, there) => {
        const kept = keepOnWords(loop(words), HERE)!;
        expect([kept.stroke.hold?.type, kept.start, kept.end]).toEqual(['around', first.start, last.end]);
        const lines = linesOfWords(wordsOf(there, kept));
        const parts = drawOnWords(kept.stroke, there, kept.start);
        expect(parts).toHaveLength(lines.length);
        parts.forEach(({ points }, index) => {
          const [box, line] = [boxAround(points), lines[index]!];
          expect(box.left).toBeLessThan(line.left);
          expect(box.right).toBeGreaterThan(line.right);
          expect(line.left - box.left).toBeLessThan(0.5 * line.height);
          expect(box.bottom - line.bottom).toBeLessThan(0.5 * line.height);
        });
      }),
    );
  });

  it('around a paragraph stays one loop around all of it', () => {
    const rows = linesOfWords(HERE);
    const kept = keepOnWords(loop([...rows[1]!.words, ...rows[2]!.words, ...rows[3]!.words]), HERE)!;
    for (const there of ELSEWHERE) {
      const [part, ...more] = drawOnWords(kept.stroke, there, kept.start);
      const words = wordsOf(there, kept);
      const box = boxAround(part!.points);
      expect(more).toEqual([]);
      expect(box.top).toBeLessThan(Math.min(...words.map(({ top }) => top)));
      expect(box.bottom).toBeGreaterThan(Math.max(...words.map(({ bottom }) => bottom)));
    }
  });

  it('beside words goes with the one where it began, and an arrow with the one that it points at', () => {
    const word = HERE[20]!;
    const tick = pen([
      at(word.left, word.top - 40),
      at(word.left + 6, word.top - 30, 0.1),
      at(word.left + 20, word.top - 60, 0.2),
    ]);
    const arrow: DrawnStroke = { ...pen([at(0, 900), at(word.left + 2, word.bottom + 3, 1)]), tool: 'arrow' };
    const beginning = HERE.find(({ start }) => start === keepOnWords(tick, HERE)!.start)!;
    expect(keepOnWords(arrow, HERE)!.start).toBe(word.start);
    for (const [stroke, own] of [
      [tick, beginning],
      [arrow, word],
    ] as const)
      for (const there of ELSEWHERE) {
        const kept = keepOnWords(stroke, HERE)!;
        const now = there.find(({ start }) => start === own.start)!;
        /** From the word, in heights of its letters. */
        const from = (box: WordBox, { x, y }: InkPoint): number[] =>
          [x - box.left, y - box.bottom].map((away) => away / (box.bottom - box.top));
        const drawn = drawOnWords(kept.stroke, there, kept.start)[0]!.points;
        expect(from(now, drawn.at(-1)!)[0]).toBeCloseTo(from(own, stroke.points.at(-1)!)[0]!, 1);
        expect(from(now, drawn.at(-1)!)[1]).toBeCloseTo(from(own, stroke.points.at(-1)!)[1]!, 1);
      }
  });

  it('keeps its place when the passage of its remark begins earlier', () => {
    for (const stroke of [along(HERE[10]!, HERE[12]!, 0.1), loop([HERE[10]!]), pen([at(HERE[10]!.left, 400)])]) {
      const kept = keepOnWords(stroke, HERE)!;
      const earlier = heldFrom(kept.stroke, kept.start - HERE[3]!.start);
      const [a, b] = [drawOnWords(kept.stroke, HERE, kept.start), drawOnWords(earlier, HERE, HERE[3]!.start)].map(
        (parts) => boxAround(parts.flatMap(({ points }) => points)),
      );
      expect(b!.left).toBeCloseTo(a!.left, 0);
      expect(b!.top).toBeCloseTo(a!.top, 0);
    }
  });

  it('on the free paper beside the text stays right of all lines, level with its words, however they are set', () => {
    const far = Math.max(...HERE.map(({ right }) => right)) + 60;
    const level = HERE.find(({ start }) => TEXT.startsWith('lifted', start))!;
    const middle = (level.top + level.bottom) / 2;
    const stroke = pen([at(far, middle, 0), at(far + 50, middle + 2, 1)]);
    const kept = keepOnWords(stroke, HERE)!;
    expect(kept.stroke.hold!.type).toBe('beside');
    for (const there of ELSEWHERE) {
      const own = linesOfWords(there).find(({ words }) => words.some((word) => word.start === kept.start))!;
      const { left, top, bottom } = boxAround(
        drawOnWords(kept.stroke, there, kept.start).flatMap(({ points }) => points),
      );
      expect(left).toBeGreaterThan(Math.max(...there.map(({ right }) => right)));
      expect((top + bottom) / 2).toBeGreaterThan(own.top - own.height / 2);
      expect((top + bottom) / 2).toBeLessThan(own.bottom + own.height / 2);
    }
    expect(areBeside([kept.stroke])).toBe(true);
    expect(areBeside([keepOnWords(along(HERE[0]!, HERE[1]!, 0.1), HERE)!.stroke])).toBe(false);
  });

  it('is nothing where there are no words', () => {
    expect(keepOnWords(pen([at(1, 1)]), [])).toBeUndefined();
    const kept = keepOnWords(along(HERE[0]!, HERE[1]!, 0.1), HERE)!;
    expect(drawOnWords(kept.stroke, [], 0)).toEqual([]);
  });
});
