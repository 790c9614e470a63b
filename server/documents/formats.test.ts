import { folioOf, leafBlocks, textBlocks, type Block, type Folio, type LeafOf } from '#core/folio';
import { strToU8, unzipSync, zipSync, type Zippable } from 'fflate';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readDocument } from './read.ts';
import { lengthOfWebm } from './webm-live.ts';

const bytesOf = (name: string): Buffer => readFileSync(new URL(`../../demo/documents/${name}`, import.meta.url));
const sourceOf = (name: string): string => readFileSync(new URL(`../../demo/sources/${name}`, import.meta.url), 'utf8');

async function read(bytes: Uint8Array | string, name: string): Promise<Folio> {
  const { file, pictures } = await readDocument(typeof bytes === 'string' ? Buffer.from(bytes) : bytes, name);
  return folioOf([file], [pictures.length]);
}
const sample = (name: string): Promise<Folio> => read(bytesOf(name), name);
const blocksIn = ({ leaves }: Folio): Block[] => leaves.flatMap(leafBlocks);
const typesIn = (folio: Folio): string[] => [...new Set(blocksIn(folio).map(({ type }) => type))];
const words = (text: string): string[] => text.match(/[\p{L}\p{N}]+/gu) ?? [];
/** The words of a page that a person wrote, found without any reader. */
const wordsOfHtml = (html: string): string[] =>
  words(
    html
      .replace(/^[^]*<body[^>]*>/, '')
      .replace(/<[^>]*>/g, ' ')
      .replace(/&[lr][ds]quo;/g, ' '),
  );

describe('an OpenDocument text', () => {
  it('has all its words, headings, lists with their bullets, tables, marks and language', async () => {
    const folio = await sample('thandiwe-moyo.odt');
    expect(words(folio.text)).toEqual(wordsOfHtml(sourceOf('sound-of-mud.html')));
    expect(typesIn(folio).sort()).toEqual(['heading', 'item', 'paragraph', 'table']);
    expect(folio.language).toBe('en-GB');
    const items = blocksIn(folio).flatMap((block) => (block.type === 'item' ? [block.depth] : []));
    expect(items).toEqual([0, 0, 1, 1]);
    const italic = textBlocks(blocksIn(folio)).flatMap(({ runs }) =>
      runs.filter(({ marks }) => marks.includes('italic')),
    );
    expect(italic.map(({ text }) => text)).toEqual(['very probably']);
  });

  it('reads spaces, tabs, notes, links and numbers, and leaves out what was struck', async () => {
    const NS = 'xmlns:office="o" xmlns:text="t" xmlns:style="s" xmlns:fo="f" xmlns:xlink="x"';
    const content = `<office:document-content ${NS}><office:automatic-styles>
      <text:list-style style:name="L"><text:list-level-style-number text:level="1" style:num-format="a" style:num-suffix=")" text:start-value="2"/></text:list-style>
      </office:automatic-styles><office:body><office:text>
      <text:tracked-changes><text:changed-region><text:deletion><text:p>struck</text:p></text:deletion></text:changed-region></text:tracked-changes>
      <text:p>one<text:s text:c="2"/>two<text:tab/>three<text:line-break/>four<text:note><text:note-citation>1</text:note-citation><text:note-body><text:p>The note.</text:p></text:note-body></text:note></text:p>
      <text:list text:style-name="L"><text:list-item><text:p>first</text:p></text:list-item><text:list-item><text:p>second</text:p></text:list-item></text:list>
      <text:p><text:a xlink:href="javascript:alert(1)">bad</text:a> <text:a xlink:href="https://tides.example/">good</text:a></text:p>
      </office:text></office:body></office:document-content>`;
    const folio = await read(odf('text', content), 'a.odt');
    expect(folio.text).toBe('one  two\tthree\nfour\nfirst\nsecond\nbad good\nThe note.\n');
    const markers = blocksIn(folio).flatMap((block) => (block.type === 'item' ? [block.marker] : []));
    expect(markers).toEqual(['b)', 'c)', '1.']);
    const links = textBlocks(blocksIn(folio)).flatMap(({ runs }) => runs.map(({ link }) => link));
    expect(links.filter(Boolean)).toEqual(['https://tides.example/']);
  });

  const NS =
    'xmlns:office="o" xmlns:text="t" xmlns:style="s" xmlns:fo="f" xmlns:xlink="x" xmlns:draw="d" xmlns:xml="http://www.w3.org/XML/1998/namespace"';
  const document = (body: string): string =>
    `<office:document-content ${NS}><office:body><office:text>${body}</office:text></office:body></office:document-content>`;

  it('numbers its headings, and counts on in lists that say so', async () => {
    const level = (at: number, more: string): string =>
      `<text:outline-level-style text:level="${at}" style:num-format="1" ${more}/>`;
    const styles = `<office:document-styles ${NS}><office:styles><text:outline-style>${level(1, 'style:num-suffix="."')}${level(2, 'text:display-levels="2"')}</text:outline-style><text:list-style style:name="L"><text:list-level-style-number text:level="1" style:num-format="1" style:num-suffix="."/></text:list-style></office:styles></office:document-styles>`;
    const heading = (at: number, words: string): string => `<text:h text:outline-level="${at}">${words}</text:h>`;
    const list = (words: string, more: string): string =>
      `<text:list text:style-name="L" ${more}><text:list-item><text:p>${words}</text:p></text:list-item></text:list>`;
    const body = `${heading(1, 'Shore')}${heading(2, 'Sand')}${heading(2, 'Mud')}${heading(1, 'Sea')}${heading(2, 'Tide')}${list('one', 'xml:id="a"')}${list('again', 'xml:id="b"')}${list('two', 'text:continue-list="a"')}${list('three', 'text:continue-numbering="true"')}`;
    const folio = await read(odf('text', document(body), { 'styles.xml': strToU8(styles) }), 'a.odt');
    const markers = textBlocks(blocksIn(folio)).map((block) => ('marker' in block ? block.marker : undefined));
    expect(markers).toEqual(['1.', '1.1', '1.2', '2.', '2.1', '1.', '1.', '2.', '3.']);
  });

  it('keeps captions, words in shapes and groups, indexes, and a broken object does not harm it', async () => {
    const picture = '<draw:frame><draw:image xlink:href="Pictures/a.png"/></draw:frame>';
    const body = `<text:p>See<text:span> <draw:frame><draw:text-box><text:p>${picture}Figure 1: gulls</text:p></draw:text-box></draw:frame>here</text:span></text:p>
      <draw:g><draw:custom-shape><text:p>in a shape</text:p></draw:custom-shape></draw:g>
      <text:alphabetical-index><text:alphabetical-index-source/><text:index-body><text:p>gull 1</text:p></text:index-body></text:alphabetical-index>
      <text:bibliography><text:index-body><text:index-title><text:p>Books</text:p></text:index-title></text:index-body></text:bibliography>
      <text:p>Broken: <draw:frame><draw:object xlink:href="./Object 1"/></draw:frame></text:p>
      <text:p><draw:frame><draw:object xlink:href="./Object 2"/></draw:frame> by an old program</text:p>`;
    const png = bytesOf('oyuna-batbayar.png');
    const old =
      '<!DOCTYPE math:math PUBLIC "-//OpenOffice.org//DTD Modified W3C MathML 1.01//EN" "math.dtd"><math:math xmlns:math="http://www.w3.org/1998/Math/MathML"><math:mi>h</math:mi></math:math>';
    const more = {
      'Pictures/a.png': new Uint8Array(png),
      'Object 1/content.xml': strToU8('<not'),
      'Object 2/content.xml': strToU8(old),
    };
    const folio = await read(odf('text', document(body), more), 'a.odt');
    expect(folio.text).toBe('See here\nFigure 1: gulls\nin a shape\ngull 1\nBooks\nBroken: \nh by an old program\n');
    const pictures = blocksIn(folio).flatMap((block) => (block.type === 'picture' ? [block.alt] : []));
    expect(pictures).toEqual(['', 'Object of another program']);
  });

  it('knows quotations and captions by the styles that they come from', async () => {
    const styles = `<office:automatic-styles><style:style style:name="P1" style:family="paragraph" style:parent-style-name="Quotations"/></office:automatic-styles><office:styles><style:style style:name="Figure" style:family="paragraph" style:parent-style-name="Caption"/></office:styles>`;
    const body = ['P1', 'Quotations', 'Figure', 'Standard']
      .map((name) => `<text:p text:style-name="${name}">${name}</text:p>`)
      .join('');
    const folio = await read(odf('text', document(body).replace('<office:body>', `${styles}<office:body>`)), 'a.odt');
    const roles = textBlocks(blocksIn(folio)).map(({ role }) => role);
    expect(roles).toEqual(['quotation', 'quotation', 'caption', undefined]);
  });

  it('is read from a template, too', async () => {
    const bytes = zipSync({
      mimetype: strToU8('application/vnd.oasis.opendocument.text-template'),
      'content.xml': strToU8(document('<text:p>Dear teacher</text:p>')),
    });
    expect((await read(bytes, 'letter.ott')).text).toBe('Dear teacher\n');
  });
});

const odf = (kind: 'text' | 'presentation', content: string, more: Zippable = {}): Uint8Array =>
  zipSync({
    mimetype: [strToU8(`application/vnd.oasis.opendocument.${kind}`), { level: 0 }],
    'content.xml': strToU8(content),
    ...more,
  });

describe('a presentation with more than boxes', () => {
  it('has its equations, and the words of its diagrams', async () => {
    const parts = unzipSync(bytesOf('mirza-hadzic.pptx'));
    const name = 'ppt/slides/slide1.xml';
    const math = 'xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math"';
    const shape = `<mc:AlternateContent xmlns:mc="mc"><mc:Choice Requires="a14"><p:sp><p:nvSpPr><p:cNvPr id="90" name="e"/><p:cNvSpPr/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="900000" cy="900000"/></a:xfrm></p:spPr><p:txBody><a:bodyPr/><a:p><a14:m xmlns:a14="a14"><m:oMathPara ${math}><m:oMath><m:sSup><m:e><m:r><m:t>x</m:t></m:r></m:e><m:sup><m:r><m:t>2</m:t></m:r></m:sup></m:sSup></m:oMath></m:oMathPara></a14:m></a:p></p:txBody></p:sp></mc:Choice><mc:Fallback/></mc:AlternateContent>`;
    const diagram = `<p:graphicFrame><p:nvGraphicFramePr><p:cNvPr id="91" name="d"/></p:nvGraphicFramePr><p:xfrm><a:off x="0" y="0"/><a:ext cx="900000" cy="900000"/></p:xfrm><a:graphic><a:graphicData uri="http://schemas.openxmlformats.org/drawingml/2006/diagram"><dgm:relIds xmlns:dgm="dgm" r:dm="rIdDiagram"/></a:graphicData></a:graphic></p:graphicFrame>`;
    const edit = (part: string, from: string, to: string): void => {
      const text = Buffer.from(parts[part]!).toString();
      expect(text).toContain(from);
      parts[part] = strToU8(text.replace(from, to));
    };
    edit(name, '</p:spTree>', `${shape}${diagram}</p:spTree>`);
    edit(
      'ppt/slides/_rels/slide1.xml.rels',
      '</Relationships>',
      '<Relationship Id="rIdDiagram" Type="x/diagramData" Target="../diagrams/data1.xml"/></Relationships>',
    );
    parts['ppt/diagrams/data1.xml'] = strToU8(
      '<d:dataModel xmlns:d="d" xmlns:a="a"><d:pt><d:t><a:p><a:r><a:t>Dig first</a:t></a:r></a:p></d:t></d:pt></d:dataModel>',
    );
    const folio = await read(zipSync(parts), 'a.pptx');
    const runs = textBlocks(blocksIn(folio)).flatMap((block) => block.runs);
    expect(runs.find(({ math: found }) => found)).toMatchObject({ text: 'x2', math: { element: 'math' } });
    expect(folio.text).toContain('Dig first\n');
  });
});

describe('a PDF', () => {
  it('has the words that were written, in reading order, on pages of their size', async () => {
    const folio = await sample('sione-tuipulotu.pdf');
    // The numbers of list entries are drawn by the page and stand in no source.
    const withoutNumbers = (all: string[]): string[] => all.filter((word) => !/^[1-4]$/.test(word));
    const written = wordsOfHtml(sourceOf('ferry-times.html'));
    expect(withoutNumbers(words(folio.text))).toEqual(withoutNumbers(written));
    const [page] = folio.leaves as LeafOf<'page'>[];
    // A4 in points, ISO 216.
    expect([page!.label, Math.round(page!.width), Math.round(page!.height)]).toEqual(['Page 1', 595, 842]);
    for (const { x, y, width, height } of page!.texts) {
      expect(x).toBeGreaterThan(0);
      expect(y).toBeGreaterThan(0);
      expect(x + width).toBeLessThan(page!.width);
      expect(y + height).toBeLessThan(page!.height);
    }
    expect(folio.text).toContain(
      'They plan their week by it and do not think about it any more than others think about',
    );
  });
});

describe.each([
  ['mirza-hadzic.pptx', 6, 'A door that tells the truth'],
  ['nomvula-dlangamandla.odp', 3, 'Leave one rock alone'],
])('the slides of %s', (name, count, title) => {
  it('stand at their size with titles, bullets, tables, pictures, shapes and notes', async () => {
    const folio = await sample(name);
    const slides = folio.leaves as LeafOf<'slide'>[];
    expect(slides).toHaveLength(count);
    expect(folio.title).toBe(title);
    const [first] = slides;
    // 28 cm × 15.75 cm, as they were made.
    expect([first!.width, first!.height].map((points) => Math.round((points / 72) * 254) / 100)).toEqual([28, 15.75]);
    const headline = first!.shapes.find(({ blocks }) => blocks[0]?.type === 'heading')!;
    expect([headline.x, headline.y, headline.width].map((points) => Math.round((points / 72) * 25.4) / 10)).toEqual([
      1.5, 0.8, 25,
    ]);
    expect(first!.background).toBe('#f3efe6');
    expect(typesIn(folio)).toEqual(expect.arrayContaining(['heading', 'item', 'table']));
    const shapes = slides.flatMap(({ shapes }) => shapes);
    expect(shapes.some(({ picture }) => picture !== undefined)).toBe(true);
    expect(shapes.some(({ geometry }) => geometry === 'line')).toBe(true);
    expect(shapes.some(({ geometry, fill }) => geometry === 'rounded' && fill === '#d9e4e4')).toBe(true);
    expect(slides[0]!.notes.length).toBe(1);
    const size = textBlocks(headline.blocks)[0]!.runs[0]!.look!.size;
    expect(size).toBe(36);
  });
});

describe('a PowerPoint placeholder', () => {
  const P = 'xmlns:p="p" xmlns:a="a" xmlns:r="r"';
  const rels = (...targets: [id: string, type: string, target: string][]): Uint8Array =>
    strToU8(
      `<Relationships>${targets.map(([id, type, target]) => `<Relationship Id="${id}" Type="x/${type}" Target="${target}"/>`).join('')}</Relationships>`,
    );
  const place = (x: number, y: number): string =>
    `<p:spPr><a:xfrm><a:off x="${x * 12700}" y="${y * 12700}"/><a:ext cx="1270000" cy="635000"/></a:xfrm></p:spPr>`;
  const shape = (ph: string, inside: string): string =>
    `<p:sp><p:nvSpPr><p:cNvPr id="1" name="n"/><p:nvPr><p:ph ${ph}/></p:nvPr></p:nvSpPr>${inside}</p:sp>`;
  const tree = (root: string, shapes: string, more = ''): Uint8Array =>
    strToU8(`<p:${root} ${P}><p:cSld><p:spTree>${shapes}</p:spTree></p:cSld>${more}</p:${root}>`);
  const text = '<p:txBody><a:bodyPr/><a:p><a:r><a:t>words</a:t></a:r></a:p></p:txBody>';

  it('takes its place from the layout, or from the master, and the size of its letters too', async () => {
    const deck = zipSync({
      '_rels/.rels': rels(['1', 'officeDocument', 'ppt/presentation.xml']),
      'ppt/presentation.xml': strToU8(
        `<p:presentation ${P}><p:sldIdLst><p:sldId id="256" r:id="s"/></p:sldIdLst><p:sldSz cx="9144000" cy="5143500"/></p:presentation>`,
      ),
      'ppt/_rels/presentation.xml.rels': rels(['s', 'slide', 'slides/slide1.xml']),
      'ppt/slides/slide1.xml': tree(
        'sld',
        shape('type="title"', `<p:spPr/>${text}`) + shape('idx="7"', `<p:spPr/>${text}`),
      ),
      'ppt/slides/_rels/slide1.xml.rels': rels(['l', 'slideLayout', '../slideLayouts/layout1.xml']),
      'ppt/slideLayouts/layout1.xml': tree(
        'sldLayout',
        shape('idx="7"', place(30, 40)) + shape('type="title"', '<p:spPr/>'),
      ),
      'ppt/slideLayouts/_rels/layout1.xml.rels': rels(['m', 'slideMaster', '../slideMasters/master1.xml']),
      'ppt/slideMasters/master1.xml': tree(
        'sldMaster',
        shape('type="title"', place(10, 20)),
        '<p:txStyles><p:titleStyle><a:lvl1pPr><a:defRPr sz="4400"/></a:lvl1pPr></p:titleStyle></p:txStyles>',
      ),
    });
    const [slide] = (await read(deck, 'a.pptx')).leaves as [LeafOf<'slide'>];
    expect(slide.shapes.map(({ x, y, width, height }) => [x, y, width, height])).toEqual([
      [10, 20, 100, 50],
      [30, 40, 100, 50],
    ]);
    expect(textBlocks(slide.shapes[0]!.blocks)[0]).toMatchObject({
      type: 'heading',
      runs: [{ text: 'words', look: { size: 44 } }],
    });
  });
});

describe('text files', () => {
  it('Markdown comes with headings, lists, tables and marks; HTML that is no markup stays text', async () => {
    const folio = await sample('usha-ramanathan.md');
    expect(folio.title).toBe('Three Names for One Bay');
    expect(typesIn(folio).sort()).toEqual(['heading', 'item', 'paragraph', 'table']);
    expect((await read('a <script>alert(1)</script> b', 'a.md')).text).toBe('a <script>alert(1)</script> b\n');
  });

  it('plain text keeps its line ends and reads other encodings', async () => {
    const folio = await sample('vahan-petrosyan.txt');
    expect(folio.text).toContain('the new\nstones are clean');
    expect(blocksIn(folio)).toHaveLength(5);
    const text = 'Über die Brücke – “heute”\r\nzweite Zeile';
    const wanted = 'Über die Brücke – “heute”\nzweite Zeile\n';
    expect((await read(Buffer.from(`\ufeff${text}`, 'utf16le'), 'a.txt')).text).toBe(wanted);
    expect((await read(Buffer.from(`\ufeff${text}`), 'a.txt')).text).toBe(wanted);
    expect((await read(Buffer.from('caf\xe9', 'latin1'), 'a.txt')).text).toBe('café\n');
  });
});

describe('pictures', () => {
  it('have the size that they have upright', async () => {
    expect((await sample('oyuna-batbayar.png')).leaves[0]).toMatchObject({
      kind: 'picture',
      width: 1400,
      height: 1000,
    });
    // It lies on its side in the file, 1400 × 1000, and its EXIF orientation is 6.
    expect((await sample('piotr-wysocki.jpg')).leaves[0]).toMatchObject({ kind: 'picture', width: 1000, height: 1400 });
    expect((await sample('quyen-truong.webp')).leaves[0]).toMatchObject({ kind: 'picture', width: 1200, height: 700 });
  });
});

describe('recordings', () => {
  it.each([
    ['rania-haddadin.ogg', false],
    ['zofia-krol.mp3', false],
    ['aroha-ngata.m4a', false],
    ['bashir-osman.wav', false],
    ['catrin-pryce.webm', false],
    ['dorji-wangmo.mp4', true],
  ])('%s says how long it is, and whether there is a picture', async (name, video) => {
    const [leaf] = (await sample(name)).leaves as [LeafOf<'sound'>];
    expect(leaf).toMatchObject({ kind: 'sound', video });
    expect(leaf.duration).toBeGreaterThan(3);
    expect(leaf.duration).toBeLessThan(60);
  });
});

describe('WebM as a browser records it, where nothing says how large or how long it is', () => {
  const live = readFileSync(new URL('./fixtures/recorded-live.webm', import.meta.url));

  it('is read, and as long as its last block says', async () => {
    const { file } = await readDocument(live, 'take.webm');
    expect(file.leaves).toEqual([{ kind: 'sound', label: 'Recording', duration: 2.399, video: false }]);
  });

  it('is read up to where it broke off, and refused where nothing of it is left', async () => {
    const half = (await readDocument(live.subarray(0, 6000), 'take.webm')).file.leaves[0] as LeafOf<'sound'>;
    expect(half.duration).toBeGreaterThan(0.9);
    expect(half.duration).toBeLessThan(2.3);
    await expect(readDocument(live.subarray(0, 40), 'take.webm')).rejects.toThrow();
  });

  it('says the same as one that tells its length, to a block', () => {
    const known = bytesOf('catrin-pryce.webm');
    expect(Math.abs(lengthOfWebm(known)! - 4.908)).toBeLessThan(0.06);
    expect(lengthOfWebm(Uint8Array.of(1, 2, 3))).toBeUndefined();
  });
});

describe('tables', () => {
  it('are the same from .csv and from .xlsx', async () => {
    const [csv, xlsx] = [await sample('xochitl-barrera.csv'), await sample('yusuf-demirkan.xlsx')];
    expect(csv.text.replace(/\b5\.0\b/g, '5')).toBe(xlsx.text);
    expect((csv.leaves[0] as LeafOf<'sheet'>).rows[4]![6]!.text).toBe('wind from the sea, rain');
  });

  it('read semicolons and quotation marks (RFC 4180), and fill up short rows', async () => {
    const [leaf] = (await read('a;"b;""c""";x\n1;2;3\n4;5\n', 'a.csv')).leaves as [LeafOf<'sheet'>];
    expect(leaf.rows.map((row) => row.map(({ text }) => text))).toEqual([
      ['a', 'b;"c"', 'x'],
      ['1', '2', '3'],
      ['4', '5', ''],
    ]);
  });
});

describe('Word documents', () => {
  const W = 'xmlns:w="w" xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math"';
  const whole = unzipSync(bytesOf('amaru-quispe.docx'));
  const with_ = (body: string, numbering = ''): Uint8Array => {
    const namespace = 'http://schemas.openxmlformats.org/wordprocessingml/2006/main';
    const xml = (root: string, inside: string): Uint8Array =>
      strToU8(`<w:${root} ${W.replace('xmlns:w="w"', `xmlns:w="${namespace}"`)}>${inside}</w:${root}>`);
    return zipSync({
      ...whole,
      'word/document.xml': xml('document', `<w:body>${body}</w:body>`),
      'word/numbering.xml': xml('numbering', numbering),
    });
  };
  const level = (depth: number, format: string, text: string): string =>
    `<w:lvl w:ilvl="${depth}"><w:start w:val="1"/><w:numFmt w:val="${format}"/><w:lvlText w:val="${text}"/></w:lvl>`;
  const item = (text: string, depth = 0, list = 1): string =>
    `<w:p><w:pPr><w:numPr><w:ilvl w:val="${depth}"/><w:numId w:val="${list}"/></w:numPr></w:pPr><w:r><w:t>${text}</w:t></w:r></w:p>`;

  it('number their lists as they say: letters, levels within levels, and starting over', async () => {
    const numbering = `<w:abstractNum w:abstractNumId="0">${level(0, 'upperRoman', '%1.')}${level(1, 'lowerLetter', '%1.%2)')}</w:abstractNum>
      <w:num w:numId="1"><w:abstractNumId w:val="0"/></w:num>
      <w:num w:numId="2"><w:abstractNumId w:val="0"/><w:lvlOverride w:ilvl="0"><w:startOverride w:val="9"/></w:lvlOverride></w:num>`;
    const body = item('a') + item('b', 1) + item('c', 1) + item('d') + item('e', 1) + item('f', 0, 2);
    const folio = await read(with_(body, numbering), 'a.docx');
    expect(folio.text).toBe('a\nb\nc\nd\ne\nf\n');
    expect(blocksIn(folio).map((block) => ('marker' in block ? block.marker : undefined))).toEqual([
      'I.',
      'I.a)',
      'I.b)',
      'II.',
      'II.a)',
      'IX.',
    ]);
  });

  it('bring their equations along as MathML, with the characters in the text', async () => {
    const run = (text: string): string => `<m:r><m:t>${text}</m:t></m:r>`;
    const body = `<w:p><w:r><w:t xml:space="preserve">so </w:t></w:r><m:oMath><m:f><m:num>${run('a')}</m:num><m:den>${run('2')}</m:den></m:f></m:oMath><w:r><w:t xml:space="preserve"> is half</w:t></w:r></w:p>`;
    const folio = await read(with_(body), 'a.docx');
    expect(folio.text).toBe('so a2 is half\n');
    expect(textBlocks(blocksIn(folio))[0]!.runs[1]).toMatchObject({
      text: 'a2',
      math: { element: 'math', children: [{ element: 'mfrac' }] },
    });
  });

  it('show moved text once, where it was moved to', async () => {
    const run = (text: string): string => `<w:r><w:t>${text}</w:t></w:r>`;
    const body = `<w:p><w:moveFrom w:id="1">${run('gone')}</w:moveFrom>${run('here')}<w:moveTo w:id="2">${run('come')}</w:moveTo></w:p>`;
    expect((await read(with_(body), 'a.docx')).text).toBe('herecome\n');
  });
});
