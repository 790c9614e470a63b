import type { LeafOf, Shape, Table } from '#core/folio';
import { textBlocks } from '#core/folio';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { picturePoints } from './picture-points.ts';
import { readDocument } from './read.ts';

const bytesOf = (name: string): Buffer => readFileSync(new URL(`../../demo/documents/${name}`, import.meta.url));

/** A presentation of the sample school with some of its parts changed. */
async function changed(name: string, changes: Record<string, (text: string) => string>) {
  const parts = unzipSync(bytesOf(name));
  for (const [part, change] of Object.entries(changes))
    parts[part] = strToU8(change(parts[part] ? strFromU8(parts[part]) : ''));
  return readDocument(zipSync(parts), name);
}
const shapesOf = (leaves: readonly unknown[]): Shape[] => (leaves as LeafOf<'slide'>[])[0]!.shapes;
const tableIn = (shapes: readonly Shape[]): Table =>
  shapes.flatMap(({ blocks }) => blocks).find((block): block is Table => block.type === 'table')!;
const fills = ({ rows }: Table): (string | undefined)[][] => rows.map((row) => row.map(({ fill }) => fill));
const colors = ({ rows }: Table): (string | undefined)[] =>
  rows.map((row) => textBlocks(row.flatMap(({ blocks }) => blocks))[0]!.runs[0]!.look?.color);

describe('an OpenDocument slide', () => {
  const read = (page: string, styles = '', common = '') =>
    changed('nomvula-dlangamandla.odp', {
      'content.xml': (xml) =>
        xml
          .replace('</office:automatic-styles>', `${styles}</office:automatic-styles>`)
          .replace(/<draw:page [^]*<\/draw:page>/u, `<draw:page draw:master-page-name="Default">${page}</draw:page>`),
      'styles.xml': (xml) => xml.replace('</office:styles>', `${common}</office:styles>`),
    });
  const frame = (attributes: string, inside: string): string =>
    `<draw:frame svg:x="1cm" svg:y="1cm" svg:width="10cm" svg:height="5cm" ${attributes}>${inside}</draw:frame>`;

  it('has letters of the size of their level in an outline, and makes them fit', async () => {
    const item = (text: string, inside = ''): string =>
      `<text:list-item><text:p>${text}</text:p>${inside}</text:list-item>`;
    const outline = `<draw:text-box><text:list>${item('one', `<text:list>${item('two', `<text:list>${item('three')}</text:list>`)}</text:list>`)}</text:list></draw:text-box>`;
    const box = '<draw:text-box><text:p>free</text:p></draw:text-box>';
    const { file } = await read(
      frame('presentation:style-name="own" presentation:class="outline"', outline) + frame('', box),
      '<style:style style:name="own" style:family="presentation" style:parent-style-name="Default-outline1"/>',
    );
    const [list, free] = shapesOf(file.leaves);
    expect(textBlocks(list!.blocks).map(({ runs }) => runs[0]!.look!.size)).toEqual([32, 28, 24]);
    expect([list!.fit, free!.fit]).toEqual([true, undefined]);
  });

  it('cuts off the edges of a picture that its frame does not show, in the lengths of the picture', async () => {
    const name = Object.keys(unzipSync(bytesOf('nomvula-dlangamandla.odp'))).find((part) =>
      /^Pictures\/.*png$/u.test(part),
    )!;
    const size = picturePoints(unzipSync(bytesOf('nomvula-dlangamandla.odp'))[name]!)!;
    const clip = (top: number, right: number): string => `rect(${top}pt, ${right}pt, 0pt, 0cm)`;
    const style = (which: string, value: string): string =>
      `<style:style style:name="${which}" style:family="graphic"><style:graphic-properties fo:clip="${value}"/></style:style>`;
    const { file } = await read(
      ['a', 'b', 'c']
        .map((which) => frame(`draw:style-name="${which}"`, `<draw:image xlink:href="${name}"/>`))
        .join(''),
      style('a', clip(size.height / 4, size.width / 2)) + style('b', clip(0, 0)) + style('c', clip(0, size.width * 2)),
    );
    const [a, b, c] = shapesOf(file.leaves);
    expect(a!.crop!.map((share) => Math.round(share * 1000) / 1000)).toEqual([0.25, 0.5, 0, 0]);
    // Nothing, and more than there is.
    expect([b!.crop, c!.crop]).toEqual([undefined, undefined]);
  });

  it('has tables with their widths, fills and colours, by cell, row, column or template', async () => {
    const cell = (text: string, style = ''): string =>
      `<table:table-cell ${style && `table:style-name="${style}"`}><text:p>${text}</text:p></table:table-cell>`;
    const style = (name: string, fill: string, color = '#000000'): string =>
      `<style:style style:name="${name}" style:family="table-cell"><loext:graphic-properties draw:fill="solid" draw:fill-color="${fill}"/><style:text-properties fo:color="${color}"/></style:style>`;
    const column = (name: string, width: string): string =>
      `<style:style style:name="${name}" style:family="table-column"><style:table-column-properties style:column-width="${width}"/></style:style>`;
    const table = `<table:table table:template-name="tide" table:use-first-row-styles="true" table:use-banding-rows-styles="true">
      <table:table-column table:style-name="wide"/><table:table-column table:style-name="slim" table:number-columns-repeated="2"/>
      <table:table-row>${cell('a')}${cell('b')}${cell('c')}</table:table-row>
      <table:table-row table:default-cell-style-name="row">${cell('d')}${cell('e', 'own')}${cell('f')}</table:table-row>
      <table:table-row>${cell('g')}<table:table-cell table:number-columns-spanned="2"><text:p>h</text:p></table:table-cell><table:covered-table-cell/></table:table-row>
      <table:table-row>${cell('i')}${cell('j')}${cell('k')}</table:table-row></table:table>`;
    const { file } = await read(
      frame('', table),
      column('wide', '6cm') + column('slim', '3cm') + style('row', '#dddddd') + style('own', '#aa0000', '#ffffff'),
      style('head', '#003366', '#ffffff') +
        style('even', '#eeeeee') +
        '<table:table-template table:name="tide"><table:first-row table:style-name="head"/><table:even-rows table:style-name="even"/></table:table-template>',
    );
    const found = tableIn(shapesOf(file.leaves));
    expect(found.widths).toEqual([0.5, 0.25, 0.25]);
    expect(fills(found)).toEqual([
      ['#003366', '#003366', '#003366'],
      ['#dddddd', '#aa0000', '#dddddd'],
      ['#eeeeee', '#eeeeee'],
      [undefined, undefined, undefined],
    ]);
    expect(colors(found)).toEqual(['#ffffff', '#000000', '#000000', undefined]);
  });

  it('names the comments of the file behind the last slide', async () => {
    const { file, pictures } = await read(
      `${frame('', '<draw:text-box><text:p>words</text:p></draw:text-box>')}<office:annotation><text:p>well</text:p></office:annotation>`,
    );
    expect(file.leaves.at(-1)).toMatchObject({ kind: 'text', blocks: [{ alt: 'Comments in this file: 1' }] });
    expect(Buffer.from(pictures.at(-1)!.bytes).toString()).toContain('Comments in this file: 1');
    expect(textBlocks(shapesOf(file.leaves).flatMap(({ blocks }) => blocks))).toHaveLength(1);
  });
});

describe('an Office slide', () => {
  const SLIDE = 'ppt/slides/slide1.xml';
  const read = (shapes: string, more: Record<string, (text: string) => string> = {}) =>
    changed('mirza-hadzic.pptx', {
      [SLIDE]: (xml) => xml.replace(/<\/p:grpSpPr>[^]*<\/p:spTree>/u, `</p:grpSpPr>${shapes}</p:spTree>`),
      ...more,
    });
  const box = (body: string, paragraphs: string): string =>
    `<p:sp><p:nvSpPr><p:cNvPr id="2" name="x"/><p:nvPr/></p:nvSpPr><p:spPr><a:xfrm><a:off x="0" y="0"/><a:ext cx="1270000" cy="635000"/></a:xfrm></p:spPr><p:txBody>${body}${paragraphs}</p:txBody></p:sp>`;
  const paragraph = (properties: string, text: string): string =>
    `<a:p>${properties}<a:r><a:t>${text}</a:t></a:r></a:p>`;

  it('says which letters become smaller, and what is written from the right', async () => {
    const { file } = await read(
      box('<a:bodyPr><a:normAutofit fontScale="50000"/></a:bodyPr>', paragraph('<a:pPr rtl="1" algn="r"/>', 'שלום')) +
        box('<a:bodyPr/>', paragraph('<a:pPr rtl="1" algn="ctr"/>', 'مد') + paragraph('<a:pPr algn="r"/>', 'ebb')),
    );
    const [shrunk, other] = shapesOf(file.leaves).slice(-2);
    expect([shrunk!.fit, other!.fit]).toEqual([true, undefined]);
    expect(shrunk!.blocks[0]).toMatchObject({ direction: 'rtl', runs: [{ look: { size: 9 } }] });
    expect('align' in shrunk!.blocks[0]!).toBe(false);
    expect(textBlocks(other!.blocks).map(({ align, direction }) => [align, direction])).toEqual([
      ['center', 'rtl'],
      ['right', undefined],
    ]);
  });

  it('has tables with their widths, fills and colours, by cell or by style', async () => {
    const cell = (text: string, own = '', run = ''): string =>
      `<a:tc><a:txBody><a:bodyPr/><a:p><a:r>${run}<a:t>${text}</a:t></a:r></a:p></a:txBody><a:tcPr>${own}</a:tcPr></a:tc>`;
    const solid = (color: string): string => `<a:solidFill><a:srgbClr val="${color}"/></a:solidFill>`;
    const part = (name: string, fill: string, color: string, bold = ''): string =>
      `<a:${name}><a:tcTxStyle ${bold}><a:fontRef idx="minor"><a:prstClr val="black"/></a:fontRef><a:srgbClr val="${color}"/></a:tcTxStyle><a:tcStyle><a:tcBdr/><a:fill>${solid(fill)}</a:fill></a:tcStyle></a:${name}>`;
    const styles = `<a:tblStyleLst xmlns:a="a"><a:tblStyle styleId="{T}">${part('wholeTbl', 'eeeeee', '000000')}${part('band1H', 'cccccc', '111111')}${part('firstRow', '003366', 'ffffff', 'b="on"')}</a:tblStyle></a:tblStyleLst>`;
    const table = `<p:graphicFrame><p:xfrm><a:off x="0" y="0"/><a:ext cx="1270000" cy="635000"/></p:xfrm><a:graphic><a:graphicData><a:tbl><a:tblPr firstRow="1" bandRow="1"><a:tableStyleId>{T}</a:tableStyleId></a:tblPr><a:tblGrid><a:gridCol w="300"/><a:gridCol w="100"/></a:tblGrid>
      <a:tr h="1">${cell('a')}${cell('b', '', '<a:rPr b="0"/>')}</a:tr><a:tr h="1">${cell('c')}${cell('d', solid('ff0000'))}</a:tr><a:tr h="1">${cell('e', '<a:noFill/>')}${cell('f')}</a:tr></a:tbl></a:graphicData></a:graphic></p:graphicFrame>`;
    const { file } = await read(table, {
      'ppt/tableStyles.xml': () => styles,
      'ppt/_rels/presentation.xml.rels': (xml) =>
        xml.replace(
          '</Relationships>',
          '<Relationship Id="rT" Type="http://schemas.openxmlformats.org/officeDocument/2006/relationships/tableStyles" Target="tableStyles.xml"/></Relationships>',
        ),
    });
    const found = tableIn(shapesOf(file.leaves));
    expect(found.widths).toEqual([0.75, 0.25]);
    expect(fills(found)).toEqual([
      ['#003366', '#003366'],
      ['#cccccc', '#ff0000'],
      [undefined, '#eeeeee'],
    ]);
    expect(colors(found)).toEqual(['#ffffff', '#111111', '#000000']);
    const bold = found.rows.map((row) =>
      row.map(({ blocks }) => textBlocks(blocks)[0]!.runs[0]!.marks.includes('bold')),
    );
    expect(bold).toEqual([
      [true, false],
      [false, false],
      [false, false],
    ]);
  });

  it('names the comments of the file behind the last slide, answers too', async () => {
    const related = (type: string, target: string): string =>
      `<Relationship Id="c${target.length}" Type="${type}/comments" Target="../comments/${target}"/></Relationships>`;
    const { file } = await read(box('<a:bodyPr/>', paragraph('', 'words')), {
      'ppt/slides/_rels/slide1.xml.rels': (xml) =>
        xml
          .replace(
            '</Relationships>',
            related('http://schemas.openxmlformats.org/officeDocument/2006/relationships', 'a.xml'),
          )
          .replace(
            '</Relationships>',
            related('http://schemas.microsoft.com/office/2018/10/relationships', 'newer.xml'),
          ),
      'ppt/comments/a.xml': () => '<p:cmLst xmlns:p="p"><p:cm/><p:cm/></p:cmLst>',
      'ppt/comments/newer.xml': () => '<c:cmLst xmlns:c="c"><c:cm><c:replyLst><c:reply/></c:replyLst></c:cm></c:cmLst>',
    });
    expect(file.leaves.at(-1)).toMatchObject({ kind: 'text', blocks: [{ alt: 'Comments in this file: 4' }] });
  });
});

describe('the size of a picture on paper', () => {
  const png = (perMetre?: number): Buffer => {
    const head = Buffer.from('89504e470d0a1a0a0000000d49484452000000c8000000640802000000', 'hex');
    const density = Buffer.alloc(17);
    density.write('pHYs');
    density.writeUInt32BE(perMetre ?? 0, 4);
    density.writeUInt32BE(perMetre ?? 0, 8);
    density[12] = 1;
    return Buffer.concat([head, Buffer.alloc(8), ...(perMetre === undefined ? [] : [density]), Buffer.from('IEND')]);
  };
  const jpeg = (unit: number, density: number): Buffer => {
    const bytes = Buffer.from('ffd8ffe000104a46494600010100000000000000ffc0001108006400c803012200021101031101', 'hex');
    bytes[13] = unit;
    bytes.writeUInt16BE(density, 14);
    bytes.writeUInt16BE(density, 16);
    return bytes;
  };
  const rounded = (bytes: Uint8Array): number[] | undefined => {
    const size = picturePoints(bytes);
    return size && [size.width, size.height].map((points) => Math.round(points));
  };

  it('follows its density, or 96 to the inch where it says none', () => {
    // 200 × 100 pixels; 5,669 to the metre are 144 to the inch.
    expect([rounded(png()), rounded(png(5669)), rounded(png(0))]).toEqual([
      [150, 75],
      [100, 50],
      [150, 75],
    ]);
    expect([rounded(jpeg(1, 72)), rounded(jpeg(2, 50)), rounded(jpeg(0, 1))]).toEqual([
      [200, 100],
      [113, 57],
      [150, 75],
    ]);
    expect(picturePoints(Buffer.from('no picture'))).toBeUndefined();
  });
});
