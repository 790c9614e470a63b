import { folioOf, textBlocks, type Block, type Folio } from '#core/folio';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { readdirSync, readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readDocumentApart } from './read-apart.ts';
import { readDocument } from './read.ts';

const FOLDER = new URL('../../demo/documents/', import.meta.url);
const essays = readdirSync(FOLDER).filter((name) => name.endsWith('.docx'));
const bytesOf = (name: string): Buffer => readFileSync(new URL(name, FOLDER));

/** A minimal document (ECMA-376 Part 1, annex L) with this body. */
function docx(body: string, relations = ''): Uint8Array {
  const W =
    'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main" xmlns:r="http://schemas.openxmlformats.org/officeDocument/2006/relationships"';
  const RELATIONS = 'http://schemas.openxmlformats.org/package/2006/relationships';
  const TYPES = 'http://schemas.openxmlformats.org/package/2006/content-types';
  const MAIN = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships/officeDocument';
  return zipSync({
    '[Content_Types].xml': strToU8(
      `<Types xmlns="${TYPES}"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>`,
    ),
    '_rels/.rels': strToU8(
      `<Relationships xmlns="${RELATIONS}"><Relationship Id="m" Type="${MAIN}" Target="word/document.xml"/></Relationships>`,
    ),
    'word/document.xml': strToU8(`<w:document ${W}><w:body>${body}</w:body></w:document>`),
    'word/_rels/document.xml.rels': strToU8(`<Relationships xmlns="${RELATIONS}">${relations}</Relationships>`),
  });
}

/** The folio of a document, and its blocks. */
async function read(bytes: Uint8Array, name = 'a.docx'): Promise<{ folio: Folio; blocks: Block[] }> {
  const folio = folioOf([(await readDocument(bytes, name)).file]);
  const [leaf] = folio.leaves;
  return { folio, blocks: leaf?.kind === 'text' ? leaf.blocks : [] };
}

const paragraph = (text: string): string => `<w:p><w:r><w:t xml:space="preserve">${text}</w:t></w:r></w:p>`;

describe('readDocument', () => {
  it.each(essays)('reads every word of %s', async (name) => {
    const { folio } = await read(bytesOf(name), name);
    // The words as they stand in the file, found without any reader: the contents of w:t, in document order.
    const xml = Buffer.from(unzipSync(bytesOf(name))['word/document.xml']!).toString('utf8');
    const written = [...xml.matchAll(/<w:t(?: [^>]*)?>([^<]*)<\/w:t>/g)].map(([, text]) => text!).join('');
    const unescaped = written
      .replace(/&lt;/g, '<')
      .replace(/&gt;/g, '>')
      .replace(/&quot;/g, '"')
      .replace(/&apos;/g, "'")
      .replace(/&amp;/g, '&');
    expect(folio.text.replace(/\n/g, '')).toBe(unescaped);
    expect(folio.leaves).toMatchObject([{ label: 'Text', kind: 'text', start: 0, end: folio.text.length }]);
    expect(folio.language).toBe('en-US');
  });

  it('keeps characters as they are: combining accents, emoji, double and no-break spaces', async () => {
    const text = 'Cafe\u0301  naïve 🦀\u00a0x';
    expect((await read(docx(paragraph(text)))).folio.text).toBe(`${text}\n`);
  });

  it('reads line breaks, tabs and empty paragraphs, so that offsets match the file', async () => {
    const body = `<w:p><w:r><w:t>a</w:t><w:br/><w:t>b</w:t><w:tab/><w:t>c</w:t></w:r></w:p><w:p/>${paragraph('d')}`;
    expect((await read(docx(body))).folio.text).toBe('a\nb\tc\n\nd\n');
  });

  it('shows tracked changes as accepted', async () => {
    const body = `<w:p><w:r><w:t xml:space="preserve">one </w:t></w:r><w:del w:id="1"><w:r><w:delText>two</w:delText></w:r></w:del><w:ins w:id="2"><w:r><w:t>three</w:t></w:r></w:ins></w:p>`;
    expect((await read(docx(body))).folio.text).toBe('one three\n');
  });

  it('keeps links that are safe and only the words of those that are not', async () => {
    const link = (id: string, text: string): string =>
      `<w:p><w:hyperlink r:id="${id}"><w:r><w:t>${text}</w:t></w:r></w:hyperlink></w:p>`;
    const target = (id: string, url: string): string =>
      `<Relationship Id="${id}" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/hyperlink" Target="${url}" TargetMode="External"/>`;
    const body = link('a', 'good') + link('b', 'bad') + link('c', 'local');
    const relations =
      target('a', 'https://tides.example/') + target('b', 'javascript:alert(1)') + target('c', 'file:///etc/passwd');
    const { blocks } = await read(docx(body, relations));
    expect(textBlocks(blocks).map(({ runs }) => runs[0])).toEqual([
      { text: 'good', marks: [], link: 'https://tides.example/' },
      { text: 'bad', marks: [] },
      { text: 'local', marks: [] },
    ]);
  });

  it('brings structure along: headings, lists, tables, pictures', async () => {
    const table = (await read(bytesOf('bronagh-tully.docx'))).blocks.find(({ type }) => type === 'table');
    expect(table).toMatchObject({ rows: { length: 5 } });
    const list = (await read(bytesOf('farid-noorzai.docx'))).blocks.filter(({ type }) => type === 'item');
    expect(list.map((item) => item.type === 'item' && item.marker)).toEqual(['1.', '2.', '3.', '4.']);
    const { pictures } = await readDocument(bytesOf('kateryna-bilyk.docx'), 'x');
    const { folio, blocks } = await read(bytesOf('kateryna-bilyk.docx'));
    expect(blocks).toContainEqual(expect.objectContaining({ type: 'picture', picture: 0 }));
    expect(Buffer.from(pictures[0]!.bytes).subarray(1, 4).toString()).toBe('PNG');
    expect(folio.title).toBe('Walking Out on the Ebb');
  });

  it('draws the numbers of footnotes without taking them for text', async () => {
    const { folio, blocks } = await read(readFileSync(new URL('../testing/footnote.docx', import.meta.url)));
    expect(folio.text).toBe('Notes\nThe tide turns.\n\tSee the almanac.\n');
    expect(blocks[1]).toMatchObject({
      runs: [{ text: 'The tide' }, { text: '', note: '1' }, { text: ' turns.' }],
    });
    expect(blocks[2]).toMatchObject({ type: 'item', marker: '1.' });
  });

  it('takes the name of the file where there is no heading', async () => {
    expect((await read(docx(paragraph('words')), 'My essay.docx')).folio.title).toBe('My essay');
  });

  it('refuses a document without any text, and one that would unpack to too much', async () => {
    await expect(readDocument(docx('<w:p/>'), 'a.docx')).rejects.toThrow('There is no text');
    await expect(readDocument(withDeclaredSize(docx(paragraph('a')), 0x7fffffff), 'a.docx')).rejects.toThrow(
      'unpacks to more',
    );
  });
});

/** Overwrites the unpacked size in every central directory entry (APPNOTE 4.3.12). */
function withDeclaredSize(bytes: Uint8Array, size: number): Buffer {
  const changed = Buffer.from(bytes);
  for (
    let at = changed.indexOf('PK\x01\x02', 0, 'latin1');
    at >= 0;
    at = changed.indexOf('PK\x01\x02', at + 4, 'latin1')
  )
    changed.writeUInt32LE(size, at + 24);
  return changed;
}

describe('what a document says beside its words', () => {
  const named = ({ blocks }: { blocks: Block[] }): string[] =>
    blocks.flatMap((block) => (block.type === 'picture' ? [block.alt] : []));

  it('is named at its end: tracked changes, which are read as accepted, and comments', async () => {
    const body = `<w:p><w:ins w:id="1" w:author="A"><w:r><w:t>low </w:t></w:r></w:ins><w:del w:id="2" w:author="A"><w:r><w:delText>high </w:delText></w:r></w:del><w:r><w:t>water</w:t></w:r></w:p>`;
    const parts = unzipSync(docx(body));
    const comments = `<w:comments xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:comment w:id="0"><w:p/></w:comment></w:comments>`;
    const tracked = await read(zipSync({ ...parts, 'word/comments.xml': strToU8(comments) }));
    expect(tracked.folio.text).toBe('low water\n');
    expect(named(tracked)).toEqual(['Tracked changes in this file: 2, read as accepted', 'Comments in this file: 1']);
    expect(named(await read(docx(paragraph('water'))))).toEqual([]);
  });

  it('is named in an OpenDocument text as well', async () => {
    const parts = unzipSync(bytesOf('thandiwe-moyo.odt'));
    const content = strFromU8(parts['content.xml']!).replace(
      '<office:text>',
      '<office:text><text:tracked-changes><text:changed-region/></text:tracked-changes><office:annotation/>',
    );
    const changed = await read(zipSync({ ...parts, 'content.xml': strToU8(content) }), 'a.odt');
    expect(named(changed)).toEqual(
      expect.arrayContaining(['Tracked changes in this file: 1, read as accepted', 'Comments in this file: 1']),
    );
  });
});

describe('readDocumentApart', () => {
  it('refuses a picture of more pixels than a browser can show', async () => {
    const parts = unzipSync(bytesOf('kateryna-bilyk.docx'));
    const name = Object.keys(parts).find((part) => part.startsWith('word/media/'))!;
    // Width and height stand at the beginning of a PNG file (ISO/IEC 15948, 11.2.2).
    const picture = Buffer.from(parts[name]!);
    expect(picture.subarray(1, 4).toString()).toBe('PNG');
    picture.writeUInt32BE(20_000, 16);
    picture.writeUInt32BE(20_000, 20);
    await expect(read(zipSync({ ...parts, [name]: picture }))).rejects.toThrow('at most 100 million pixels');
  });

  it('keeps words in fields, in text that runs the other way and under readings, and parts them at breaks', async () => {
    const run = (text: string): string => `<w:r><w:t xml:space="preserve">${text}</w:t></w:r>`;
    const body = [
      `<w:p>${run('Figure ')}<w:fldSimple w:instr=" SEQ Figure ">${run('2')}</w:fldSimple>${run(': mud')}</w:p>`,
      `<w:p><w:dir w:val="rtl">${run('שלום')}</w:dir>${run(' said')}<w:bdo w:val="rtl">${run(' he')}</w:bdo></w:p>`,
      `<w:p><w:r><w:ruby><w:rubyPr/><w:rt>${run('しお')}</w:rt><w:rubyBase>${run('潮')}</w:rubyBase></w:ruby></w:r></w:p>`,
      `<w:p><w:r><w:t>one</w:t><w:cr/><w:t>two</w:t></w:r><w:r><w:br w:type="page"/><w:t>three</w:t></w:r></w:p>`,
      `<w:p><w:r><w:br w:type="page"/></w:r>${run('alone')}</w:p>`,
    ];
    expect((await read(docx(body.join('')))).folio.text).toBe(
      'Figure 2: mud\nשלום said he\n潮\none\ntwo\nthree\nalone\n',
    );
  });

  it('joins paragraphs whose mark was struck, and leaves out rows that were', async () => {
    const struck = '<w:pPr><w:rPr><w:del w:id="1" w:author="a"/></w:rPr></w:pPr>';
    const cell = (text: string): string => `<w:tc>${paragraph(text)}</w:tc>`;
    const body = `<w:p>${struck}<w:r><w:t>one </w:t></w:r></w:p>${paragraph('two')}<w:tbl><w:tr>${cell('kept')}</w:tr><w:tr><w:trPr><w:del w:id="2" w:author="a"/></w:trPr>${cell('gone')}</w:tr></w:tbl>`;
    expect((await read(docx(body))).folio.text).toBe('one two\nkept\n');
  });

  it('reads what was saved as strict, and what calls a note that is not there', async () => {
    const strict = docx(
      `${paragraph('strict words')}<w:p><w:r><w:t>called</w:t></w:r><w:r><w:footnoteReference w:id="7"/></w:r></w:p><w:p><m:oMath xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math"><m:f><m:num><m:r><m:t>a</m:t></m:r></m:num><m:den><m:r><m:t>2</m:t></m:r></m:den></m:f></m:oMath></w:p>`,
    );
    const parts = unzipSync(strict);
    for (const name of ['word/document.xml', '_rels/.rels'])
      parts[name] = strToU8(
        Buffer.from(parts[name]!)
          .toString()
          .replace(
            /http:\/\/schemas\.openxmlformats\.org\/(wordprocessingml|officeDocument)\/2006\//g,
            'http://purl.oclc.org/ooxml/$1/',
          ),
      );
    const { folio, blocks } = await read(zipSync(parts));
    expect(folio.text).toBe('strict words\ncalled\na2\n');
    expect(blocks.at(-1)).toMatchObject({ runs: [{ text: 'a2', math: { children: [{ element: 'mfrac' }] } }] });
  });

  it('keeps how paragraphs are set, by themselves or by their style', async () => {
    const set = (properties: string, text: string): string =>
      `<w:p><w:pPr>${properties}</w:pPr><w:r><w:t>${text}</w:t></w:r></w:p>`;
    const bytes = docx(
      [
        set('<w:jc w:val="center"/>', 'middle'),
        set('<w:jc w:val="right"/>', 'right'),
        set('<w:jc w:val="both"/>', 'both'),
        set('<w:pStyle w:val="Dated"/>', 'by style'),
        set('<w:pStyle w:val="Zitat"/>', 'said'),
        set('<w:pStyle w:val="Figure"/><w:jc w:val="center"/>', 'shown'),
        set('<w:bidi/>', 'שלום'),
        set('<w:bidi/><w:jc w:val="end"/>', 'ends left'),
        set('<w:bidi w:val="0"/>', 'not turned'),
        `<w:tbl><w:tr><w:tc>${set('<w:jc w:val="center"/>', 'cell')}</w:tc></w:tr></w:tbl>`,
      ].join(''),
    );
    const parts = unzipSync(bytes);
    parts['word/styles.xml'] = strToU8(
      `<w:styles xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:style w:type="paragraph" w:styleId="Base"><w:pPr><w:jc w:val="right"/></w:pPr></w:style><w:style w:type="paragraph" w:styleId="Dated"><w:basedOn w:val="Base"/></w:style><w:style w:type="paragraph" w:styleId="Zitat"><w:name w:val="Quote"/></w:style><w:style w:type="paragraph" w:styleId="Caption"><w:name w:val="caption"/></w:style><w:style w:type="paragraph" w:styleId="Figure"><w:name w:val="Figure"/><w:basedOn w:val="Caption"/></w:style></w:styles>`,
    );
    const { folio, blocks } = await read(zipSync(parts));
    expect(folio.text).toBe('middle\nright\nboth\nby style\nsaid\nshown\nשלום\nends left\nnot turned\ncell\n');
    expect(textBlocks(blocks).map(({ align, direction }) => [align, direction])).toEqual([
      ['center', undefined],
      ['right', undefined],
      [undefined, undefined],
      ['right', undefined],
      [undefined, undefined],
      ['center', undefined],
      [undefined, 'rtl'],
      ['left', 'rtl'],
      [undefined, undefined],
      ['center', undefined],
    ]);
    expect(textBlocks(blocks).map(({ role }) => role)).toEqual([
      ...Array<undefined>(4),
      'quotation',
      'caption',
      ...Array<undefined>(4),
    ]);
  });

  it('loses nothing else over an equation that cannot be read', async () => {
    const broken = `<w:p><m:oMath xmlns:m="http://schemas.openxmlformats.org/officeDocument/2006/math"><m:nary><m:r><m:t>n</m:t></m:r></m:nary><m:f/></m:oMath></w:p>`;
    const { folio } = await read(docx(`${paragraph('before')}${broken}${paragraph('after')}`));
    expect(folio.text).toMatch(/^before\n[^]*after\n$/u);
  });

  it('says what cannot be drawn and where it was, with the words that are in it', async () => {
    const drawing = (uri: string, inner: string): string =>
      `<w:p><w:r><w:t>before</w:t></w:r><w:r><w:drawing><wp:inline xmlns:wp="p"><a:graphic xmlns:a="a"><a:graphicData uri="${uri}">${inner}</a:graphicData></a:graphic></wp:inline></w:drawing></w:r></w:p>`;
    const chart = drawing('http://schemas.openxmlformats.org/drawingml/2006/chart', '<c:chart xmlns:c="c" r:id="c1"/>');
    const diagram = drawing(
      'http://schemas.openxmlformats.org/drawingml/2006/diagram',
      '<d:relIds xmlns:d="d" r:dm="d1"/>',
    );
    const equation = '<w:p><w:r><w:object><o:OLEObject xmlns:o="o" ProgID="Equation.3"/></w:object></w:r></w:p>';
    const relations =
      '<Relationship Id="c1" Type="x/chart" Target="charts/chart1.xml"/><Relationship Id="d1" Type="x/diagramData" Target="diagrams/data1.xml"/>';
    const words = (text: string): string => `<a:p><a:r><a:t>${text}</a:t></a:r></a:p>`;
    const more = {
      'word/charts/chart1.xml': `<c:chartSpace xmlns:c="c" xmlns:a="a"><c:chart><c:title><c:tx><c:rich>${words('Tides in May')}</c:rich></c:tx></c:title></c:chart></c:chartSpace>`,
      'word/diagrams/data1.xml': `<d:dataModel xmlns:d="d" xmlns:a="a"><d:ptLst><d:pt><d:t>${words('Dig')}</d:t></d:pt><d:pt type="pres"/><d:pt><d:t>${words('Count')}</d:t></d:pt></d:ptLst></d:dataModel>`,
    };
    const parts = { ...unzipSync(docx(chart + diagram + equation, relations)) };
    for (const [name, text] of Object.entries(more)) parts[name] = strToU8(text);
    const { folio, blocks } = await read(zipSync(parts));
    expect(folio.text).toBe('before\nbefore\nDig\nCount\n\n');
    expect(blocks.flatMap((block) => (block.type === 'picture' ? [block.alt] : []))).toEqual([
      'Chart: Tides in May',
      'Diagram',
      'Equation of an old program',
    ]);
    const { pictures } = await readDocument(zipSync(parts), 'a.docx');
    expect(Buffer.from(pictures[0]!.bytes).toString()).toContain('Chart: Tides in May. Not shown here.');
  });

  it('answers the same from its own thread, errors too', async () => {
    const bytes = bytesOf('liang-meixiu.docx');
    expect((await readDocumentApart('me', () => Promise.resolve(bytes), 'a.docx')).file).toEqual(
      (await readDocument(bytes, 'a.docx')).file,
    );
    await expect(readDocumentApart('me', () => Promise.resolve(Buffer.from('x')), 'a.docx')).rejects.toThrow(
      'inside it is plain text',
    );
  });
});
