import { describe, expect, it } from 'vitest';
import { placedTexts, type DrawnText } from './index.ts';

const at = (text: string, x: number, y: number, more: Partial<DrawnText> = {}): DrawnText => ({
  text,
  x,
  y,
  width: text.length * 5,
  height: 10,
  angle: 0,
  ...more,
});
const textOf = (drawn: DrawnText[]): string =>
  placedTexts(drawn)
    .map(({ text, glue }) => text + glue)
    .join('');
/** Lines of one column, twelve points apart. */
const column = (lines: string[], x = 50, y = 100): DrawnText[] =>
  lines.map((line, index) => at(line, x, y + 12 * index));

describe('placedTexts', () => {
  it('joins the lines of a paragraph, and ends it where more room is left', () => {
    const drawn = [
      ...column(['The ferry has run for longer than', 'anybody can remember, and has had', 'one enemy.']),
      at('It is the mud and not the wind that', 50, 150),
    ];
    expect(textOf(drawn)).toBe(
      'The ferry has run for longer than anybody can remember, and has had one enemy.\nIt is the mud and not the wind that\n',
    );
  });

  it('puts words together that were hyphenated at the end of a line, and leaves the hyphen', () => {
    expect(textOf(column(['and they were the only observ-', 'ations']))).toBe('and they were the only observ-ations\n');
    expect(textOf(column(['seen from the North-', 'East']))).toContain('North- East');
  });

  it('ends a paragraph before a heading, a list mark and a first line that is set in', () => {
    expect(textOf([at('The end of this line is rather far', 50, 100), at('A Heading', 50, 112, { height: 16 })])).toBe(
      'The end of this line is rather far\nA Heading\n',
    );
    expect(textOf(column(['Three things are talked about on it.', '1. One can dig there', '2. One can go']))).toBe(
      'Three things are talked about on it.\n1. One can dig there\n2. One can go\n',
    );
    expect(
      textOf([at('This line is full from end to end.', 50, 100), at('This begins further in', 65, 112)]),
    ).toContain('end.\nThis');
  });

  it('puts a space where two parts of a line stand apart, and none where they touch', () => {
    expect(textOf([at('one', 50, 100), at('two', 70, 100), at('three', 85, 100)])).toBe('one twothree\n');
  });

  it('drops spaces that are drawn by themselves into the word before', () => {
    expect(placedTexts([at('one', 50, 100), at(' ', 65, 100), at('two', 70, 100)]).map(({ text }) => text)).toEqual([
      'one ',
      'two',
    ]);
  });

  it('reads two columns one after the other, also where they were drawn across', () => {
    const words = (side: string): string[] =>
      ['one', 'two', 'three']
        .map((line) => `the ${side} column, line ${line}, goes on`)
        .concat(`the ${side} column ends here.`);
    const [left, right] = [words('left'), words('right')];
    const [a, b] = [column(left, 50), column(right, 320)];
    const across = a.flatMap((line, index) => [line, b[index]!]);
    const wanted = `${left.join(' ')}\n${right.join(' ')}\n`;
    expect(textOf([...a, ...b])).toBe(wanted);
    expect(textOf(across)).toBe(wanted);
  });

  it('keeps turned text as lines of their own', () => {
    const turned = placedTexts([at('up the side', 20, 400, { angle: -90 }), at('level', 50, 100)]);
    expect(turned.map(({ text, angle, glue }) => [text, angle, glue])).toEqual([
      ['up the side', -90, '\n'],
      ['level', undefined, '\n'],
    ]);
  });

  it('has nothing to say about an empty page', () => {
    expect(placedTexts([])).toEqual([]);
    expect(placedTexts([at('  ', 1, 1)])).toEqual([]);
  });
});
