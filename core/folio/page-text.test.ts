import { describe, expect, it } from 'vitest';
import { partRunningHeads, placedTexts, type DrawnText } from './index.ts';
import { asWritten } from './page-script.ts';

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

  it('puts words together that were hyphenated at the end of a line, with a hyphen that nobody sees or searches', () => {
    expect(textOf(column(['and they were the only observ-', 'ations']))).toBe(
      'and they were the only observ\u00adations\n',
    );
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

  it('reads turned text along its own lines, after what stands upright', () => {
    const turned = placedTexts([
      at('up the side', 20, 400, { angle: -90 }),
      at('and on', 32, 400, { angle: -90 }),
      at('level', 50, 100),
    ]);
    expect(turned.map(({ text, angle, glue }) => [text, angle, glue])).toEqual([
      ['level', undefined, '\n'],
      ['up the side', -90, ' '],
      ['and on', -90, '\n'],
    ]);
  });

  it('reads columns of signs that stand below each other from right to left', () => {
    const drawn = [
      at('潮が引いたあとに', 200, 50, { angle: 90, width: 80 }),
      at('砂の上を歩いた。', 184, 50, { angle: 90, width: 80 }),
    ];
    expect(textOf(drawn)).toBe('潮が引いたあとに砂の上を歩いた。\n');
  });

  it('keeps the call of a note in its sentence', () => {
    // 58 % as large and raised by a third, as office programs do it (common practice).
    const drawn = [
      at('anybody can remember', 50, 100),
      at('1', 150, 98.5, { width: 3, height: 5.8 }),
      at(', and in all those years it', 153, 100),
      at('had one enemy', 50, 112),
    ];
    expect(textOf(drawn)).toBe('anybody can remember1, and in all those years it had one enemy\n');
  });

  it('puts no space where a line of Chinese or Japanese ends, nor where its signs are spread', () => {
    expect(textOf(column(['潮が引いたあと、わたしたちは', 'すなはまを']))).toBe(
      '潮が引いたあと、わたしたちはすなはまを\n',
    );
    expect(textOf([at('潮が', 50, 100, { width: 20 }), at('引く', 73, 100, { width: 20 })])).toBe('潮が引く\n');
    expect(textOf(column(['walked to the 潮', 'and back']))).toBe('walked to the 潮 and back\n');
  });

  it('reads Hebrew and Arabic from the right, with numbers and other words in it, from whichever side they were drawn', () => {
    const parts = [
      at('בשעה', 180, 100, { width: 20 }),
      at('12', 160, 100, { width: 15 }),
      at('Fen', 95, 100, { width: 60 }),
      at('חזרנו', 70, 100, { width: 20 }),
    ];
    for (const drawn of [parts, [...parts].reverse()]) expect(textOf(drawn)).toBe('בשעה Fen 12 חזרנו\n');
    const lines = [at('שורה ארוכה', 50, 100, { width: 200 }), at('סוף', 230, 112, { width: 20 })];
    expect(textOf(lines)).toBe('שורה ארוכה סוף\n');
  });

  it('has nothing to say about an empty page', () => {
    expect(placedTexts([])).toEqual([]);
    expect(placedTexts([at('  ', 1, 1)])).toEqual([]);
  });
});

describe('partRunningHeads', () => {
  const page = (number: number, head: string): DrawnText[] => [
    at(head, 50, 100),
    ...column([`that the water of day ${number} was as`, 'high as ever, and', 'nobody knew'], 50, 112),
    at(`${number}`, 50, 148),
  ];
  const read = (heads: string[]): string[] =>
    partRunningHeads(heads.map((head, index) => placedTexts(page(index + 1, head)))).map((texts) =>
      texts.map(({ text, glue }) => text + glue).join(''),
    );

  it('parts what stands at the top and bottom of most pages from the sentences beside it', () => {
    expect(read(['tides and mud', 'tides and mud', 'tides and mud'])).toEqual(
      [1, 2, 3].map(
        (day) => `tides and mud\nthat the water of day ${day} was as high as ever, and nobody knew\n${day}\n`,
      ),
    );
  });

  it('leaves lines that stand there once', () => {
    expect(read(['we said', 'he found', 'they knew'])[0]).toContain('we said that the water');
  });
});

describe('Arabic and Persian', () => {
  it('are the letters that were typed, not the forms in which they are drawn', () => {
    // U+FE8D … are forms of one letter each, U+FEFB is two (Unicode Character Database, compatibility decompositions).
    const text = placedTexts([at('\ufe97\ufee2 \ufefb', 0, 0)]).map((one) => one.text);
    expect(text).toEqual(['تم لا']);
    expect(asWritten('\ufdf2')).toBe('الله');
    expect(asWritten('ﬁn')).toBe('ﬁn');
  });

  it('have their brackets open and close as they are read, also where one stands alone', () => {
    expect(asWritten(')قبل الظهر( في')).toBe('(قبل الظهر) في');
    expect(asWritten('»نعم« قال')).toBe('«نعم» قال');
    expect(asWritten('الدالة f(x) هنا في السطر الأول')).toBe('الدالة f(x) هنا في السطر الأول');
    const line = [at('قال', 45, 0), at(')', 40, 0), at('نعم', 25, 0), at('(', 20, 0)];
    expect(
      placedTexts(line)
        .map(({ text }) => text)
        .join(''),
    ).toBe('قال(نعم)');
  });

  it('have an accent at its letter', () => {
    expect(asWritten('جمله \u0654 فارسی')).toBe('جمله\u0654 فارسی');
  });
});

describe('Japanese that is set down the page', () => {
  const down = (text: string, x: number): DrawnText[] =>
    [...text].map((sign, index) => at(sign, x, index * 12, { width: 10 }));
  it('is a column each, and no paragraph for every sign', () => {
    const texts = placedTexts([...down('海辺を歩いた。', 100), ...down('鳥がいた。', 80)]);
    expect(
      texts
        .map(({ text, glue }) => text + glue)
        .join('')
        .trim()
        .split('\n'),
    ).toHaveLength(1);
    expect(texts.map(({ text }) => text).join('')).toBe('海辺を歩いた。鳥がいた。');
    expect(new Set(texts.map(({ angle }) => angle))).toEqual(new Set([90]));
  });

  it('is left alone where it runs across', () => {
    const across = [...'海辺を歩いた'].map((sign, index) => at(sign, index * 12, 0, { width: 10 }));
    expect(placedTexts(across).map(({ angle }) => angle)).toEqual(Array(6).fill(undefined));
  });

  it('is a column also where its signs are drawn a little higher or lower than they should be', () => {
    const jitter = [0, -3, 3, 1, -2, 4, 0];
    const column = [...'海辺を歩いた。'].map((sign, index) => at(sign, 100, index * 8 + jitter[index]!, { width: 10 }));
    expect(placedTexts(column).map(({ text, angle }) => [text, angle])).toEqual([['海辺を歩いた。', 90]]);
  });
});

describe('accents that are drawn by themselves', () => {
  it('stand with the letter below them, though a space was drawn nearer to the end of the line', () => {
    // From the left, as a browser prints it: the accent of the last letter, a space, and the letters of the word.
    const drawn = [at(' \u064b', 28.2, 0, { width: 0 }), at(' ', 26, 0, { width: 4.5 })];
    const letters = [...'اصن'].map((letter, index) => at(letter, 29.4 + index * 5, 0, { width: 5 }));
    const before = at('قصر', 10, 0, { width: 16 });
    const texts = placedTexts([before, ...drawn, ...letters]);
    expect(
      texts
        .map(({ text, glue }) => text + glue)
        .join('')
        .trim(),
    ).toBe('نصا\u064b قصر');
  });

  it('are left alone where no letter is near', () => {
    expect(
      placedTexts([at('\u0301', 300, 0, { width: 0 }), at('word', 0, 0)])
        .map(({ text }) => text)
        .join('|'),
    ).toContain('\u0301');
  });
});

describe('brackets of a page that is read from the right', () => {
  const line = (open: string, close: string, y: number): DrawnText[] => [
    at('كتب', 100, y, { width: 20 }),
    at(open, 92, y, { width: 4 }),
    at('قبل', 70, y, { width: 20 }),
    at(`.${close}`, 62, y, { width: 8 }),
  ];
  it.each([
    ['as they are drawn', ')', '('],
    ['as they are meant', '(', ')'],
  ])('enclose the same words where a program writes them %s', (_, open, close) => {
    const texts = placedTexts([...line(open, close, 0), ...line(open, close, 14)]);
    const text = texts.map(({ text, glue }) => text + glue).join('');
    expect(text.replaceAll(/\s/gu, '')).toBe('كتب(قبل).كتب(قبل).');
  });
});
