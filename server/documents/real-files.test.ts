import { folioOf, leafBlocks, leafText, textBlocks, type Folio } from '#core/folio';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { readDocument } from './read.ts';

/** Files that other programs have made from our text; see fixtures/make.sh. */
const bytesOf = (name: string): Buffer => readFileSync(new URL(`fixtures/${name}`, import.meta.url));

async function read(name: string, bytes = bytesOf(name)): Promise<Folio> {
  const { file, pictures } = await readDocument(bytes, name);
  return folioOf([file], [pictures.length]);
}

describe('a PDF', () => {
  it('that a browser printed in Hebrew, with numbers, bold words and Latin ones, is read as it was written', async () => {
    expect((await read('hebrew.pdf')).text).toBe(
      'הגאות מגיעה פעמיים ביום, בערך כל 12 שעות ו־25 דקות, והמים עולים עד 3.5 מטרים מעל הקו של Fennick ביום רגיל.\nמחר נמדוד שוב.\n',
    );
  });

  it('that a browser printed with letters set apart has words, and not letters', async () => {
    const printed = readFileSync(new URL('../marked/fixtures/printed-105.pdf', import.meta.url));
    expect((await read('printed-105.pdf', printed)).text).toContain(
      'Widely set letters spread their words over the whole of a line, and more.',
    );
  });

  it('keeps its accents with their letters, and its brackets the right way round, whichever program made it', async () => {
    const arabic = 'كتب الطالب نصاً قصيراً عن البحر والمد والجزر (قبل الظهر). ثم قاس العمق: 3.5 متر.';
    expect((await read('arabic-office.pdf')).text.replaceAll('\n', ' ').split(arabic)).toHaveLength(5);
    const persian = 'دانشجو متنی کوتاه دربارهٔ دریا نوشت. عمق آب ۳٫۵ متر بود (نزدیک ظهر).';
    expect((await read('persian-browser.pdf')).text).toBe(`دریا\n${[persian, persian, persian].join(' ')}\n`);
  });

  it('that an office program made keeps its calls of notes in the sentence', async () => {
    expect((await read('notes.pdf')).text).toBe(
      'The ferry has run for longer than anybody can remember1, and in all those years it has had one enemy, which is the mud of the channel2 and not the wind that people blame for every morning without a boat.\n1 So says the keeper.\n2 Measured in May.\n1\n',
    );
  });

  it('has the words that were typed into its fields, and those of notes on the page (ISO 32000-2, sections 12.5.6.6 and 12.7)', async () => {
    const { text } = await read('form.pdf', formPdf());
    expect(text).toBe('Name:\nOyuna Batbayar\nWhat did you see?\nTwo turnstones\nPlease read this first\n');
  });
});

/** A page with two questions, two fields that are filled in, one for a password, and a note that stands on it. */
function formPdf(): Buffer {
  const words = 'BT /F 12 Tf 50 700 Td (Name:) Tj 0 -100 Td (What did you see?) Tj ET';
  const field = (name: string, value: string, top: number, more = ''): string =>
    `<< /Type /Annot /Subtype /Widget /FT /Tx /T (${name}) /V (${value}) /Rect [50 ${top - 20} 300 ${top}] /F 4 /DA (/F 10 Tf 0 g) ${more} >>`;
  const objects = [
    '<< /Type /Catalog /Pages 2 0 R /AcroForm << /Fields [6 0 R 7 0 R 8 0 R] /DA (/F 10 Tf 0 g) /DR << /Font << /F 5 0 R >> >> >> >>',
    '<< /Type /Pages /Kids [3 0 R] /Count 1 >>',
    '<< /Type /Page /Parent 2 0 R /MediaBox [0 0 595 842] /Contents 4 0 R /Annots [6 0 R 7 0 R 8 0 R 9 0 R] /Resources << /Font << /F 5 0 R >> >> >>',
    `<< /Length ${words.length} >>\nstream\n${words}\nendstream`,
    '<< /Type /Font /Subtype /Type1 /BaseFont /Helvetica >>',
    field('a', 'Oyuna Batbayar', 690),
    field('b', 'Two turnstones', 590),
    field('c', 'secret', 400, '/Ff 8192'),
    '<< /Type /Annot /Subtype /FreeText /Contents (Please read this first) /Rect [50 300 300 320] /F 4 /DA (/F 10 Tf 0 g) >>',
  ];
  const body = objects.map((object, index) => `${index + 1} 0 obj\n${object}\nendobj\n`).join('');
  return Buffer.from(`%PDF-1.7\n${body}trailer << /Root 1 0 R >>\n%%EOF\n`, 'latin1');
}

describe('an OpenDocument text', () => {
  it('counts on where a list goes on after a sentence', async () => {
    const blocks = (await read('lists.odt')).leaves.flatMap(leafBlocks);
    expect(textBlocks(blocks).map((block) => ('marker' in block ? block.marker : undefined))).toEqual([
      '(1)',
      '(2)',
      undefined,
      '(3)',
    ]);
  });
});

describe('a workbook', () => {
  it('shows its values as their cells do, also nothing, no, long times, money, and formulas that nobody has computed', async () => {
    expect(
      (await read('values.xlsx')).text
        .split('\n')
        .filter(Boolean)
        .map((row) => row.split('\t')),
    ).toEqual([
      ['What', 'Value'],
      ['none', '0'],
      ['no', 'FALSE'],
      ['yes', 'TRUE'],
      ['long', '38:24'],
      ['price', '€ 1,234.50'],
      ['many', '1,234,567'],
      ['share', '25.6%'],
      ['day', '2026-03-09'],
      ['hour', '14:30'],
      ['sum', '=B2+B6'],
      ['third', '0.333333333333'],
      ['Chart (not shown)'],
    ]);
  });
});

describe('a recording', () => {
  it.each([
    ['tone.flac', 'flac'],
    ['tone.aac', 'aac'],
    ['streamed.wav', 'wav'],
    ['rf64.wav', 'wav'],
    ['film.mov', 'mp4'],
  ])('is read: %s', async (name, format) => {
    const { files, leaves } = await read(name);
    expect(files).toEqual([{ name, format }]);
    const [leaf] = leaves;
    expect(leaf).toMatchObject({ kind: 'sound', video: name === 'film.mov' });
    // Whoever writes while recording does not know the length yet.
    if (leaf?.kind === 'sound' && leaf.duration !== null) expect(Math.abs(leaf.duration - 1)).toBeLessThan(0.15);
  });

  it('may have bytes behind its end, but must not break off', async () => {
    const film = bytesOf('film.mov');
    expect(
      (await read('film.mov', Buffer.concat([film, Buffer.from('left behind by a program')]))).leaves,
    ).toHaveLength(1);
    await expect(read('film.mov', film.subarray(0, film.length - 200))).rejects.toThrow('damaged or not complete');
    const ogg = readFileSync(new URL('../../demo/documents/rania-haddadin.ogg', import.meta.url));
    expect((await read('a.ogg', Buffer.concat([ogg, Buffer.alloc(100, 7)]))).leaves).toHaveLength(1);
  });
});

describe('a chart in a workbook', () => {
  it('is named after its sheet', async () => {
    const parts = unzipSync(readFileSync(new URL('fixtures/values.xlsx', import.meta.url)));
    const sheet = Object.keys(parts).find((name) => /worksheets\/sheet1\.xml$/u.test(name))!;
    const relations = (type: string, target: string): Uint8Array =>
      strToU8(
        `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/${type}" Target="${target}"/></Relationships>`,
      );
    const chart = `<c:chartSpace xmlns:c="c" xmlns:a="a"><c:chart><c:title><c:tx><c:rich><a:p><a:r><a:t>Tides in May</a:t></a:r></a:p></c:rich></c:tx></c:title></c:chart></c:chartSpace>`;
    const bytes = zipSync({
      ...parts,
      [sheet.replace('sheet1.xml', '_rels/sheet1.xml.rels')]: relations('drawing', '../drawings/drawing1.xml'),
      'xl/drawings/drawing1.xml': strToU8('<d/>'),
      'xl/drawings/_rels/drawing1.xml.rels': relations('chart', '../charts/chart1.xml'),
      'xl/charts/chart1.xml': strToU8(chart),
    });
    const { file } = await readDocument(Buffer.from(bytes), 'values.xlsx');
    expect(file.leaves[1]).toMatchObject({ kind: 'sheet', label: 'Chart: Tides in May' });
    expect(leafText(file.leaves[1]!)).toBe('Chart: Tides in May (not shown)\n');
  });
});

describe('a picture that browsers do not show', () => {
  it('is shown as one that they do: each page of a TIFF', async () => {
    const page = (fill: string) =>
      sharp({ create: { width: 60, height: 40, channels: 3, background: fill } })
        .png()
        .toBuffer();
    const tiff = await sharp([await page('#aa2211'), await page('#113355')], { join: { animated: true } })
      .tiff({ compression: 'deflate' })
      .toBuffer();
    const { file, pictures } = await readDocument(tiff, 'scan.tif');
    expect(file.leaves.map(({ kind, label }) => [kind, label])).toEqual([
      ...[
        ['picture', 'Page 1'],
        ['picture', 'Page 2'],
      ],
    ]);
    expect(file.leaves[1]).toMatchObject({ width: 60, height: 40, picture: 1 });
    const [red] = await sharp(pictures[0]!.bytes).raw().toBuffer();
    expect([pictures.map(({ mediaType }) => mediaType), red]).toEqual([['image/png', 'image/png'], 0xaa]);
  });

  it('is shown as one that they do: the photograph of a phone', async () => {
    const { file, pictures } = await readDocument(bytesOf('photo.heic'), 'IMG_0001.HEIC');
    expect(file.leaves).toEqual([{ kind: 'picture', label: 'Picture', picture: 0, width: 320, height: 200 }]);
    expect(pictures[0]!.mediaType).toBe('image/jpeg');
    // A red disc on a pale ground.
    const pixels = await sharp(pictures[0]!.bytes).raw().toBuffer();
    const at = (x: number, y: number): number[] => [...pixels.subarray((y * 320 + x) * 3, (y * 320 + x) * 3 + 3)];
    const [red, , blue] = at(90, 90);
    expect(red! - blue!).toBeGreaterThan(80);
    expect(Math.min(...at(300, 20))).toBeGreaterThan(190);
  });
});

describe('an OpenDocument spreadsheet', () => {
  it('that an office program made shows its values as their cells do, and names its chart', async () => {
    const rows = (await read('values.ods')).text
      .trim()
      .split('\n')
      .map((row) => row.split('\t'));
    expect(rows.slice(0, 8)).toEqual([
      ...[
        ['What', 'Value'],
        ['none', '0'],
        ['no', 'FALSE'],
        ['yes', 'TRUE'],
        ['long', '38:24'],
      ],
      ...[
        ['price', '€ 1,234.50'],
        ['many', '1,234,567'],
        ['share', '25.6%'],
      ],
    ]);
    expect(rows.at(-1)).toEqual(['Chart (not shown)']);
  });

  const spreadsheet = (rows: string): Buffer =>
    Buffer.from(
      zipSync({
        mimetype: [strToU8('application/vnd.oasis.opendocument.spreadsheet'), { level: 0 }],
        'content.xml': strToU8(
          `<office:document-content xmlns:office="o" xmlns:table="t" xmlns:text="x"><office:body><office:spreadsheet><table:table table:name="Depths">${rows}</table:table></office:spreadsheet></office:body></office:document-content>`,
        ),
      }),
    );
  const text = async (rows: string): Promise<string> =>
    folioOf([(await readDocument(spreadsheet(rows), 'depths.ods')).file]).text;
  const cell = (words: string, more = ''): string =>
    `<table:table-cell ${more}><text:p>${words}</text:p></table:table-cell>`;

  it('counts cells and rows that are repeated, and none for those that are empty', async () => {
    const far =
      '<table:table-row table:number-rows-repeated="1048576"><table:table-cell table:number-columns-repeated="16384"/></table:table-row>';
    const rows = `<table:table-header-rows><table:table-row>${cell('Day', 'table:number-columns-repeated="2"')}<table:covered-table-cell/>${cell('a<text:s text:c="2"/>b')}</table:table-row></table:table-header-rows><table:table-row table:number-rows-repeated="2"><table:table-cell office:value="4.9"/></table:table-row>`;
    expect(await text(`${rows}${far}`)).toBe('Day\tDay\t\ta  b\n4.9\t\t\t\n4.9\t\t\t\n');
  });

  it('is refused where it is larger than can be shown, and where nothing is in it', async () => {
    const wide = `<table:table-row table:number-rows-repeated="60000">${cell('1')}</table:table-row>`;
    await expect(text(wide)).rejects.toThrow('50,000 cells');
    await expect(
      text(`<table:table-row>${cell('1', 'table:number-columns-repeated="999999999"')}</table:table-row>`),
    ).rejects.toThrow('50,000 cells');
    await expect(text('<table:table-row/>')).rejects.toThrow('nothing in the cells');
  });
});
