import fc from 'fast-check';
import { strToU8, zipSync } from 'fflate';
import { parseFragment } from 'parse5';
import { describe, expect, it } from 'vitest';
import { canonicalText, leafText, textBlocks, type Block } from '#core/folio';
import { readFileSync } from 'node:fs';
import { hexColor, partsOf, withLuminance } from './color.ts';
import { isCutShort } from './cut-short.ts';
import { decodeText } from './decode-text.ts';
import { blocksOfNodes } from './html-blocks.ts';
import { collapseWhiteSpace } from './html-space.ts';
import { bullet, listNumber } from './list-number.ts';
import { mathNode } from './math.ts';
import { mediaTypeOf } from './media-type.ts';
import { points } from './odf-style.ts';
import { pptxColors } from './pptx-color.ts';
import { readDocument } from './read.ts';
import { sheetLeaf } from './sheet.ts';
import { attribute, child, descendants, numberOf, parseXml } from './xml.ts';
import { openPackage } from './zip.ts';

describe('listNumber', () => {
  it.each([
    [4, 'decimal', '4'],
    [4, 'lowerRoman', 'iv'],
    [1994, 'upperRoman', 'MCMXCIV'],
    [3999, 'upperRoman', 'MMMCMXCIX'],
    [1, 'lowerLetter', 'a'],
    [26, 'upperLetter', 'Z'],
    [27, 'lowerLetter', 'aa'],
    [53, 'lowerLetter', 'aaa'],
    [0, 'lowerRoman', '0'],
    [5000, 'upperRoman', '5000'],
  ] as const)('writes %d as %s: %s', (number, counting, text) => {
    expect(listNumber(number, counting)).toBe(text);
  });

  it('writes bullets of symbol fonts as one that everybody has', () => {
    expect([bullet('–'), bullet('\uf0b7'), bullet(undefined), bullet('ab')]).toEqual(['–', '•', '•', '•']);
  });
});

describe('colours', () => {
  const arbitraryColor = fc.tuple(fc.nat(255), fc.nat(255), fc.nat(255)).map(hexColor);

  it('keep their parts, and stay as they are where nothing is changed', () => {
    fc.assert(
      fc.property(arbitraryColor, (color) => {
        expect(hexColor(partsOf(color))).toBe(color);
        const same = partsOf(withLuminance(color, 1, 0));
        partsOf(color).forEach((part, index) => expect(Math.abs(part - same[index]!)).toBeLessThanOrEqual(1));
        expect(withLuminance(color, 0, 0)).toBe('#000000');
        expect(withLuminance(color, 1, 1)).toBe('#ffffff');
      }),
    );
  });

  it('become lighter and darker in their own hue', () => {
    // HSL 210°, 50 %, 40 % and 60 %: CSS Color 4, section 7.1.
    expect(withLuminance('#336699', 1, 0.2)).toBe('#6699cc');
    expect(withLuminance('#6699cc', 2 / 3, 0)).toBe('#336699');
  });

  it('are found by the names of the theme, as the master maps them', () => {
    const theme = parseXml(
      '<theme><themeElements><clrScheme><dk1><sysClr lastClr="000000"/></dk1><lt1><srgbClr val="FFFFFF"/></lt1><accent1><srgbClr val="336699"/></accent1></clrScheme></themeElements></theme>',
      'pptx',
    ).documentElement!;
    const master = parseXml(
      '<sldMaster><clrMap bg1="dk1" tx1="lt1" accent1="accent1"/></sldMaster>',
      'pptx',
    ).documentElement!;
    const slide = parseXml('<sld/>', 'pptx').documentElement!;
    const colors = pptxColors(theme, master, slide);
    const of = (xml: string): string | undefined =>
      colors.color(parseXml(`<solidFill>${xml}</solidFill>`, 'pptx').documentElement!);
    expect(of('<schemeClr val="bg1"/>')).toBe('#000000');
    expect(
      pptxColors(theme, undefined, slide).color(parseXml('<f><schemeClr val="bg1"/></f>', 'pptx').documentElement!),
    ).toBe('#ffffff');
    expect(of('<schemeClr val="accent1"><lumMod val="100000"/><lumOff val="20000"/></schemeClr>')).toBe('#6699cc');
    expect(of('<srgbClr val="zzz"/>')).toBeUndefined();
    const fill = (xml: string): [boolean, string | undefined] => {
      const properties = parseXml(`<spPr>${xml}</spPr>`, 'pptx').documentElement!;
      return [colors.isFilled(properties), colors.fill(properties)];
    };
    expect(fill('<noFill/>')).toEqual([true, undefined]);
    expect(fill('')).toEqual([false, undefined]);
    expect(fill('<gradFill><gsLst><gs><srgbClr val="112233"/></gs></gsLst></gradFill>')).toEqual([true, '#112233']);
  });
});

describe('decodeText', () => {
  const textOf = (bytes: Uint8Array): string | undefined => decodeText(bytes)?.text;

  it('tells text from bytes that are none', () => {
    expect(textOf(strToU8('a\r\nb\rc'))).toBe('a\nb\nc');
    expect(textOf(Uint8Array.from([0xff, 0xfe, 0x41, 0x00]))).toBe('A');
    expect(textOf(Uint8Array.from([0xfe, 0xff, 0x00, 0x41]))).toBe('A');
    expect(textOf(Uint8Array.from([0x80, 0x41]))).toBe('€A');
    expect(textOf(Uint8Array.from([0x41, 0x00, 0x42]))).toBeUndefined();
    expect(textOf(Uint8Array.from([0xef, 0xbb, 0xbf, 0xff]))).toBeUndefined();
  });

  // The same sentence as other programs store it: made with the codecs of Python 3.11.
  it.each([
    [
      'windows-1252',
      '47 72 f6 df 65 20 75 6e 64 20 4c e4 6e 67 65 20 64 65 72 20 50 72 69 65 6c 65 20 77 61 72 65 6e 20 66 fc 72 20 75 6e 73 20 73 63 68 77 65 72 20 7a 75 20 73 63 68 e4 74 7a 65 6e 2c 20 73 61 67 74 65 20 64 69 65 20 46 72 61 75 20 96 20 84 6a 61 93 2e',
      'Größe und Länge der Priele waren für uns schwer zu schätzen, sagte die Frau – „ja“.',
    ],
    [
      'windows-1250',
      '50 f8 ed 6c 69 76 20 70 f8 69 9a 65 6c 20 64 76 61 6b 72 e1 74 20 7a 61 20 64 65 6e 20 61 20 6d 79 20 6a 73 6d 65 20 9a 6c 69 20 70 6f 64 e9 6c 20 68 72 e1 7a 65 20 61 9e 20 6b 20 70 f8 ed 73 74 61 76 75 2c 20 6b 64 65 20 9e 69 6a 65 20 73 74 61 72 fd 20 70 f8 65 76 6f 7a 6e ed 6b 2e',
      'Příliv přišel dvakrát za den a my jsme šli podél hráze až k přístavu, kde žije starý převozník.',
    ],
    [
      'windows-1251',
      'cf f0 e8 eb e8 e2 20 ef f0 e8 f5 ee e4 e8 f2 20 e4 e2 e0 e6 e4 fb 20 e2 20 e4 e5 ed fc',
      'Прилив приходит дважды в день',
    ],
    [
      'shift_jis',
      '92 aa 82 aa 88 f8 82 a2 82 bd 82 a0 82 c6 81 41 8d bb 82 cc 8f e3 82 f0 95 e0 82 a2 82 bd 81 42',
      '潮が引いたあと、砂の上を歩いた。',
    ],
    [
      'gb18030',
      'b3 b1 cb ae cd cb c8 a5 d2 d4 ba f3 a3 ac ce d2 c3 c7 d1 d8 d7 c5 ba a3 b5 cc d7 df',
      '潮水退去以后，我们沿着海堤走',
    ],
    [
      'euc-kr',
      'bd e4 b9 b0 c0 cc 20 c1 f6 b3 aa b0 a3 20 b5 da 20 bf ec b8 ae b4 c2 20 b0 c9 be fa b4 d9',
      '썰물이 지나간 뒤 우리는 걸었다',
    ],
    ['utf-16le', '54 00 69 00 64 00 65 00 73 00 20 00 fc 00 62 00', 'Tides üb'],
    ['utf-16be', '00 54 00 69 00 64 00 65 00 73 00 20 00 fc 00 62', 'Tides üb'],
  ] as const)('guesses %s where nothing says so, and tells that it did', (encoding, hex, text) => {
    const bytes = Buffer.from(hex.replaceAll(' ', ''), 'hex');
    expect(decodeText(bytes)).toEqual({ text, encoding, guessed: true });
    expect(decodeText(bytes, encoding)).toEqual({ text, encoding, guessed: false });
  });
});

describe('text that is more than paragraphs', () => {
  const blocksOf = async (text: string, name: string) => {
    const { file, pictures } = await readDocument(Buffer.from(text), name);
    const [leaf] = file.leaves;
    return { blocks: leaf?.kind === 'text' ? leaf.blocks : [], pictures, format: file.format };
  };
  const textsOf = (blocks: readonly Block[]): string[] =>
    textBlocks(blocks).map(({ runs }) => runs.map(({ text }) => text).join(''));

  it('is Markdown with footnotes, tasks, formulas and front matter, and shows no tags', async () => {
    const { blocks } = await blocksOf(
      [
        '---\ntitle: Log\n---',
        'A <b>bold</b> word<!-- hidden -->, `code`, and a note.[^1]',
        '- [x] done\n- [ ] open',
        'So $a^2$ is it.',
        'A List<String> stays.',
        '```js\nlet a = 1;\n```',
        '[^1]: Said below.',
      ].join('\n\n'),
      'log.md',
    );
    expect(textsOf(blocks)).toEqual([
      'A bold word, code, and a note.',
      '☑ done',
      '☐ open',
      'So a2 is it.',
      'A List<String> stays.',
      'let a = 1;\n',
      'Said below.',
    ]);
    const runs = textBlocks(blocks).flatMap((block) => block.runs);
    expect(runs.find(({ note }) => note)).toMatchObject({ note: '1', text: '' });
    expect(runs.find(({ math }) => math)).toMatchObject({ text: 'a2', math: { element: 'math' } });
    expect(runs.filter(({ marks }) => marks.includes('code')).map(({ text }) => text)).toEqual([
      'code',
      'let a = 1;\n',
    ]);
  });

  it('is text under any ending, also with a few control characters, but no other bytes', async () => {
    for (const name of ['paper.tex', 'sort.py', 'Main.java', 'data.json', 'guide.rst', 'NOTES', 'x.unknown'])
      expect(await blocksOf('Low tide\u000c at four', name)).toMatchObject({ format: 'text' });
    expect(textsOf((await blocksOf('one\u0001 two\u0000 three', 'a.txt')).blocks)).toEqual(['one two three']);
    await expect(readDocument(Buffer.from([1, 2, 3, 0, 5, 6, 7, 8, 9, 14, 15, 16]), 'a.py')).rejects.toThrow('kind');
  });

  it('is a notebook by its cells', async () => {
    const cell = (cell_type: string, source: string | string[], outputs?: object[]): object => ({
      ...{ cell_type, source, metadata: {} },
      ...(outputs && { outputs }),
    });
    const png = readFileSync(new URL('../../demo/documents/oyuna-batbayar.png', import.meta.url)).toString('base64');
    const notebook = {
      cells: [
        cell('markdown', ['# Tides\n', 'Measured *twice*.']),
        cell('code', 'print(1 < 2)', [{ output_type: 'stream', text: ['True\n'] }]),
        cell('code', '', [{ output_type: 'display_data', data: { 'image/png': png, 'text/plain': '<Figure>' } }]),
      ],
    };
    const { blocks, pictures } = await blocksOf(JSON.stringify(notebook), 'tides.ipynb');
    expect(textsOf(blocks)).toEqual(['Tides', 'Measured twice.', 'print(1 < 2)', 'True\n']);
    expect([blocks.at(-1)!.type, pictures.length]).toEqual(['picture', 1]);
    await expect(readDocument(Buffer.from('{"cells": 1}'), 'a.ipynb')).rejects.toThrow('notebook');
  });
});

describe('a web page', () => {
  it('is read in the encoding that it declares', async () => {
    const words = Buffer.from('cff0e8ebe8e2', 'hex');
    const page = (charset: string): Buffer =>
      Buffer.concat([
        Buffer.from(`<html><head><meta charset="${charset}"></head><body><p>`),
        words,
        Buffer.from('</p></body></html>'),
      ]);
    const { file, notes } = await readDocument(page('windows-1251'), 'a.html');
    expect([file.leaves.map(leafText), notes]).toEqual([['Прилив\n'], []]);
    expect((await readDocument(page('koi8-r'), 'a.html')).file.leaves.map(leafText)).toEqual(['оПХКХБ\n']);
    expect(
      (await readDocument(page('koi8-r'), 'a.html', { encoding: 'windows-1251' })).file.leaves.map(leafText),
    ).toEqual(['Прилив\n']);
    // What nobody knows is as if it were not said.
    expect((await readDocument(page('x-unknown'), 'a.html')).notes).toHaveLength(1);
  });
});

describe('collapseWhiteSpace', () => {
  const textOf = (html: string): string => {
    const fragment = parseFragment(html);
    collapseWhiteSpace(fragment);
    return canonicalText(blocksOfNodes(fragment.childNodes));
  };

  it.each([
    ['<p>\n  one\n  two  </p>', 'one two\n'],
    ['<p>one <b> two</b> three</p>', 'one two three\n'],
    ['<p>one<b> two </b></p><p> three</p>', 'one two\nthree\n'],
    ['<p>one <br> two</p>', 'one\ntwo\n'],
    ['<pre>  one\n    two</pre>', '  one\n    two\n'],
    ['<ul> <li> one </li> <li> two </li> </ul>', 'one\ntwo\n'],
    ['<p>no\u00a0break</p>', 'no\u00a0break\n'],
  ])('of %o leaves %o', (html, text) => {
    expect(textOf(html)).toBe(text);
  });
});

describe('XML and packages', () => {
  it('are read by local names, whatever their prefixes', () => {
    const root = parseXml(
      '<a:x xmlns:a="n" xmlns:r="m" id="1" r:id="2"><a:y n="3"/><b><a:y n="x"/></b></a:x>',
      'docx',
    ).documentElement!;
    expect([attribute(root, 'id'), attribute(root, 'r:id'), attribute(root, 'none')]).toEqual(['1', '2', undefined]);
    expect(numberOf(child(root, 'y'), 'n')).toBe(3);
    expect(descendants(root, 'y').map((element) => numberOf(element, 'n'))).toEqual([3, undefined]);
    expect(() => parseXml('<a><b></a>', 'docx')).toThrow('damaged');
    expect(() => parseXml('<!DOCTYPE a><a/>', 'docx')).toThrow('damaged');
  });

  it('unpack only what is asked for', () => {
    const files = openPackage(zipSync({ 'a.xml': strToU8('\ufeff<a/>'), 'b/c.bin': Uint8Array.of(1, 2) }), 'odt');
    expect(files.names).toEqual(['a.xml', 'b/c.bin']);
    expect([files.text('a.xml'), files.bytes('b/c.bin'), files.text('none')]).toEqual([
      '<a/>',
      Uint8Array.of(1, 2),
      undefined,
    ]);
    expect(() => openPackage(Uint8Array.of(1, 2, 3), 'odt')).toThrow('OpenDocument text');
  });
});

describe('small parts', () => {
  it('lengths of OpenDocument are points', () => {
    expect([
      points('2.54cm'),
      points('1in'),
      points('12pt'),
      points('25.4mm'),
      points('50%'),
      points(undefined),
    ]).toEqual([72, 72, 12, 72, undefined, undefined]);
  });

  it('equations keep what draws, and nothing that could run', () => {
    const math = parseXml(
      '<math onload="x()" display="block"><semantics><mi mathvariant="bold">a</mi><annotation>a</annotation></semantics><script>alert(1)</script><maction href="x"><mn> 2 </mn></maction></math>',
      'odt',
    ).documentElement!;
    expect(mathNode(math as never)).toEqual({
      element: 'math',
      attributes: { display: 'block' },
      children: [
        { element: 'mrow', children: [{ element: 'mi', attributes: { mathvariant: 'bold' }, children: ['a'] }] },
        { element: 'mrow', children: ['alert(1)'] },
        { element: 'mrow', children: [{ element: 'mn', children: ['2'] }] },
      ],
    });
  });

  it('tables are cut to what is filled, and refused where nothing is', () => {
    const cell = (text: string) => ({ text });
    const { rows } = sheetLeaf('T', [[cell('a'), cell(''), cell('b\tc\nd')], [], [cell(''), cell('')]]);
    expect(rows).toEqual([[cell('a'), cell(''), cell('b c d')]]);
    expect(() => sheetLeaf('T', [[cell('')]])).toThrow('no text');
    expect(() =>
      sheetLeaf(
        'T',
        Array.from({ length: 50_001 }, () => [cell('x')]),
      ),
    ).toThrow('50,000');
  });

  it('media types follow the format, and the picture of a recording', () => {
    const sound = (video: boolean) => [{ kind: 'sound' as const, label: '', duration: 1, video }];
    expect(mediaTypeOf({ format: 'mp4', leaves: sound(false) })).toBe('audio/mp4');
    expect(mediaTypeOf({ format: 'webm', leaves: sound(true) })).toBe('video/webm');
    expect(mediaTypeOf({ format: 'pdf', leaves: [] })).toBe('application/pdf');
    expect(() => mediaTypeOf({ format: 'answers', leaves: [] })).toThrow();
  });

  it('a recording of unknown length is not taken for one that broke off', () => {
    // EBML head without content, then a segment of unknown size (RFC 8794, section 6.2), as browsers record.
    const live = Uint8Array.from([
      0x1a, 0x45, 0xdf, 0xa3, 0x80, 0x18, 0x53, 0x80, 0x67, 0x01, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 0xff, 1, 2, 3,
    ]);
    expect(isCutShort(live, 'webm')).toBe(false);
    const known = Uint8Array.from([0x1a, 0x45, 0xdf, 0xa3, 0x80, 0x18, 0x53, 0x80, 0x67, 0x84, 1, 2, 3]);
    expect(isCutShort(known, 'webm')).toBe(true);
    expect(isCutShort(Uint8Array.from([...known, 4]), 'webm')).toBe(false);
  });
});
