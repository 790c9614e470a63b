import { PDFDocument, PDFName, PDFString } from '@cantoo/pdf-lib';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { CannotStrip, withoutNames } from './index.ts';

const NAME = 'Zofia Krol';
/** All that stands in a file, unpacked where it is packed. */
const everything = (bytes: Uint8Array): string => {
  const raw = Buffer.from(bytes).toString('latin1');
  if (!raw.startsWith('PK')) return raw;
  return Object.entries(unzipSync(bytes))
    .map(([name, part]) => `${name}\n${strFromU8(part, true)}`)
    .join('\n');
};

const CORE = `<cp:coreProperties xmlns:cp="c" xmlns:dc="d"><dc:creator>${NAME}</dc:creator><cp:lastModifiedBy>${NAME}</cp:lastModifiedBy></cp:coreProperties>`;
const PARTS: Record<string, Record<string, string>> = {
  docx: {
    'docProps/core.xml': CORE,
    'docProps/app.xml': `<Properties><Manager>${NAME}</Manager></Properties>`,
    'word/comments.xml': `<w:comments xmlns:w="w"><w:comment w:id="0" w:author="${NAME}" w:initials="ZK"/></w:comments>`,
    'word/people.xml': `<w15:people xmlns:w15="w"><w15:person w15:author="${NAME}"><w15:presenceInfo w15:providerId="AD" w15:userId="S::${NAME}"/></w15:person></w15:people>`,
    'word/_rels/settings.xml.rels': `<Relationships><Relationship Target="file:///C:/Users/${NAME}/Normal.dotm"/></Relationships>`,
  },
  pptx: {
    'docProps/core.xml': CORE,
    'ppt/commentAuthors.xml': `<p:cmAuthorLst xmlns:p="p"><p:cmAuthor id="0" name="${NAME}" initials="ZK"/></p:cmAuthorLst>`,
  },
  odt: {
    'meta.xml': `<office:document-meta xmlns:office="o" xmlns:dc="d"><dc:creator>${NAME}</dc:creator></office:document-meta>`,
    'content.xml': `<office:document-content xmlns:office="o" xmlns:dc="d"><office:annotation><dc:creator>${NAME}</dc:creator>Well.</office:annotation></office:document-content>`,
  },
};

PARTS.epub = {
  'EPUB/content.opf': `<package unique-identifier="book"><metadata xmlns:dc="d"><dc:identifier id="book">7</dc:identifier><dc:creator id="c" opf:file-as="${NAME}">${NAME}</dc:creator><dc:language>en</dc:language></metadata><manifest/></package>`,
  'EPUB/toc.ncx': `<ncx><docAuthor><text>${NAME}</text></docAuthor></ncx>`,
  'EPUB/one.xhtml': `<html><head><meta name="author" content="${NAME}"/></head><body>Mud.</body></html>`,
};

describe.each(Object.entries(PARTS))('a .%s', (format, parts) => {
  it('says nothing of its author, and all else as before', async () => {
    const before = { 'word/media/plain.txt': strToU8('as it was'), ...mapped(parts) };
    const after = await withoutNames(zipSync(before), format);
    expect(everything(zipSync(before))).toContain(NAME);
    expect(everything(after)).not.toContain(NAME);
    expect(Object.keys(unzipSync(after)).sort()).toEqual(Object.keys(before).sort());
    expect(strFromU8(unzipSync(after)['word/media/plain.txt']!)).toBe('as it was');
  });
});
const mapped = (parts: Record<string, string>): Record<string, Uint8Array> =>
  Object.fromEntries(Object.entries(parts).map(([name, text]) => [name, strToU8(text)]));

describe('pages and texts', () => {
  const stripped = async (text: string, format: string): Promise<string> =>
    Buffer.from(await withoutNames(Buffer.from(text), format)).toString();

  it('say nothing of their author beside their words', async () => {
    const page = (head: string): string => `<html><head>${head}<title>Ebb – ü</title></head><body>by Z.</body></html>`;
    const named = `<!-- by ${NAME} --><meta content="${NAME}" name=author><meta property="article:author" content="${NAME}"><meta name='DC.Creator' content="${NAME}">`;
    expect(await stripped(page(`${named}<meta charset="utf-8">`), 'html')).toBe(page('<meta charset="utf-8">'));
    const text = `---\ntitle: Ebb\nauthor:\n  - ${NAME}\n- Z. K.\nEmail: z@example.org\ndate: today\n---\nauthor: a word\n`;
    expect(await stripped(text, 'markdown')).toBe('---\ntitle: Ebb\ndate: today\n---\nauthor: a word\n');
    for (const plain of ['author: a word\n', '---\nauthor: never closed\n'])
      expect(await stripped(plain, 'markdown')).toBe(plain);
  });
});

describe('a PDF', () => {
  it('loses its information, its metadata and the authors of its notes, and keeps its pages', async () => {
    const made = await PDFDocument.create();
    const page = made.addPage([200, 300]);
    page.drawText('Mud has a memory.');
    made.setAuthor(NAME);
    made.setTitle(`By ${NAME}`);
    const metadata = made.context.stream(`<x:xmpmeta>${NAME}</x:xmpmeta>`);
    made.catalog.set(PDFName.of('Metadata'), made.context.register(metadata));
    const note = made.context.obj({ Type: 'Annot', Subtype: 'Text', Rect: [0, 0, 9, 9], T: PDFString.of(NAME) });
    page.node.set(PDFName.of('Annots'), made.context.obj([made.context.register(note)]));
    const before = await made.save({ useObjectStreams: false });
    expect(everything(before)).toContain(NAME);
    const after = await PDFDocument.load(await withoutNames(before, 'pdf'), { updateMetadata: false });
    const plain = await after.save({ useObjectStreams: false });
    expect(everything(plain)).not.toContain(NAME);
    expect(after.getPageCount()).toBe(1);
    expect([after.getAuthor(), after.getTitle()]).toEqual([undefined, undefined]);
  });

  it('that cannot be opened is not passed on', async () => {
    await expect(withoutNames(strToU8('%PDF-1.7 broken'), 'pdf')).rejects.toBeInstanceOf(CannotStrip);
  });
});

describe('pictures and sounds', () => {
  const segment = (marker: number, data: Uint8Array): Uint8Array =>
    new Uint8Array([0xff, marker, (data.length + 2) >> 8, (data.length + 2) & 255, ...data]);
  /** Exif with an orientation and an artist, in either byte order (Exif 2.32). */
  const exif = (little: boolean, orientation: number): Uint8Array => {
    const tiff = new DataView(new ArrayBuffer(60));
    tiff.setUint16(0, little ? 0x4949 : 0x4d4d);
    tiff.setUint16(2, 42, little);
    tiff.setUint32(4, 8, little);
    tiff.setUint16(8, 2, little);
    const entries = [
      [0x0112, 3, 1],
      [0x013b, 2, NAME.length + 1],
    ] as const;
    entries.forEach(([tag, type, count], index) => {
      const at = 10 + index * 12;
      tiff.setUint16(at, tag, little);
      tiff.setUint16(at + 2, type, little);
      tiff.setUint32(at + 4, count, little);
    });
    tiff.setUint16(18, orientation, little);
    tiff.setUint32(30, 40, little);
    strToU8(NAME).forEach((byte, index) => tiff.setUint8(40 + index, byte));
    return new Uint8Array([...strToU8('Exif\0\0'), ...new Uint8Array(tiff.buffer)]);
  };
  const jpeg = (...segments: Uint8Array[]): Uint8Array =>
    new Uint8Array([0xff, 0xd8, ...segments.flatMap((one) => [...one]), 0xff, 0xda, 0, 2, 1, 2, 3, 0xff, 0xd9]);

  it.each([
    [true, 6],
    [false, 8],
  ])('a JPEG keeps how it was held and no artist (little-endian: %s)', async (little, orientation) => {
    const table = segment(0xdb, new Uint8Array([1, 2, 3]));
    const before = jpeg(segment(0xe1, exif(little, orientation)), segment(0xfe, strToU8(NAME)), table);
    const after = await withoutNames(before, 'jpeg');
    expect(everything(after)).not.toContain(NAME);
    expect(everything(after)).toContain(String.fromCharCode(...table));
    const at = Buffer.from(after).indexOf('Exif') + 6;
    expect([...after.subarray(at + 10, at + 20)]).toEqual([1, 0x12, 0, 3, 0, 0, 0, 1, 0, orientation]);
    expect([...after.subarray(-9)]).toEqual([0xff, 0xda, 0, 2, 1, 2, 3, 0xff, 0xd9]);
  });

  it('a PNG, a WebP and an MP3 keep no words about them', async () => {
    const chunk = (name: string, data: string): number[] => [0, 0, 0, data.length, ...strToU8(name + data), 0, 0, 0, 0];
    const png = new Uint8Array([
      ...[0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10],
      ...[...chunk('IHDR', 'head'), ...chunk('tEXt', `Author\0${NAME}`), ...chunk('IDAT', 'body')],
    ]);
    const riff = (name: string, data: string): number[] => [...strToU8(name), data.length, 0, 0, 0, ...strToU8(data)];
    const inside = [...strToU8('WEBP'), ...riff('VP8X', '\x0c234567890'.slice(0, 10)), ...riff('EXIF', `${NAME}`)];
    const webp = new Uint8Array([...strToU8('RIFF'), inside.length, 0, 0, 0, ...inside]);
    const mp3 = new Uint8Array([...strToU8('ID3'), 4, 0, 0, 0, 0, 0, NAME.length, ...strToU8(NAME), 0xff, 0xfb, 1, 2]);
    for (const [format, bytes] of [
      ['png', png],
      ['webp', webp],
      ['mp3', mp3],
    ] as const) {
      const after = everything(await withoutNames(bytes, format));
      expect([format, after.includes(NAME)]).toEqual([format, false]);
      expect(after.length).toBeGreaterThan(3);
    }
    expect(everything(await withoutNames(png, 'png'))).toContain('IDAT');
    expect([...(await withoutNames(mp3, 'mp3'))]).toEqual([0xff, 0xfb, 1, 2]);
  });
});
