import { strToU8, zipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { DocumentError, FORMAT_NAMES, type FileFormat } from './document.ts';
import { readDocument } from './read.ts';

const bytesOf = (name: string): Buffer => readFileSync(new URL(`../../demo/documents/${name}`, import.meta.url));

const fixture = (name: string): Buffer => readFileSync(new URL(`fixtures/${name}`, import.meta.url));
const openDocument = (kind: string): Buffer =>
  Buffer.from(zipSync({ mimetype: strToU8(`application/vnd.oasis.opendocument.${kind}`) }));

/** A real file of each format. */
const SAMPLES: Record<FileFormat, string> = {
  docx: 'amaru-quispe.docx',
  odt: 'thandiwe-moyo.odt',
  pdf: 'sione-tuipulotu.pdf',
  pptx: 'mirza-hadzic.pptx',
  odp: 'nomvula-dlangamandla.odp',
  markdown: 'usha-ramanathan.md',
  text: 'vahan-petrosyan.txt',
  html: 'wanja-gitau.html',
  epub: '../../server/documents/fixtures/book.epub',
  png: 'oyuna-batbayar.png',
  jpeg: 'piotr-wysocki.jpg',
  webp: 'quyen-truong.webp',
  gif: '../../server/documents/fixtures/bars.gif',
  tiff: '../../server/documents/fixtures/bars.tiff',
  heic: '../../server/documents/fixtures/photo.heic',
  wav: 'bashir-osman.wav',
  mp3: 'zofia-krol.mp3',
  ogg: 'rania-haddadin.ogg',
  webm: 'catrin-pryce.webm',
  mp4: 'aroha-ngata.m4a',
  flac: '../../server/documents/fixtures/tone.flac',
  aac: '../../server/documents/fixtures/tone.aac',
  csv: 'xochitl-barrera.csv',
  xlsx: 'yusuf-demirkan.xlsx',
  ods: '../../server/documents/fixtures/values.ods',
};
const formats = Object.keys(SAMPLES) as FileFormat[];
/** Frames that follow each other, without any word of how many. */
const ENDLESS: readonly FileFormat[] = ['flac', 'aac'];
const TEXTS: readonly FileFormat[] = ['markdown', 'text', 'html', 'csv'];
const PACKAGES: readonly FileFormat[] = ['docx', 'odt', 'pptx', 'odp', 'xlsx', 'ods', 'epub'];
const named = (format: FileFormat): string => SAMPLES[format];

/** The sentence with which a file is refused; nothing else may come out of a bad file. */
async function refusal(bytes: Uint8Array, name: string): Promise<string> {
  const error: unknown = await readDocument(bytes, name).then(
    () => 'it was read',
    (failure: unknown) => failure,
  );
  expect(error).toBeInstanceOf(DocumentError);
  const { message } = error as DocumentError;
  expect(message).toMatch(/^[“A-Z].*[.:]/);
  return message;
}

describe.each(formats)('a bad %s', (format) => {
  it('is refused when it is empty', async () => {
    expect(await refusal(Buffer.alloc(0), named(format))).toContain('is empty');
  });

  it.skipIf([...TEXTS, ...ENDLESS].includes(format))('is refused when it was cut short', async () => {
    const whole = bytesOf(named(format));
    for (const share of [0.5, 0.9])
      expect(await refusal(whole.subarray(0, Math.floor(whole.length * share)), named(format))).toContain(
        FORMAT_NAMES[format],
      );
  });

  it('is read as what it is where it has another name, with a word about it; text alone may be what is left of it', async () => {
    const other = format === 'jpeg' ? 'png' : 'jpeg';
    const { file, notes } = await readDocument(bytesOf(named(other)), named(format));
    expect(file.format).toBe(other);
    expect(notes).toMatchObject([{ note: expect.stringContaining(FORMAT_NAMES[other]) as string, encoding: null }]);
    if (!TEXTS.includes(format))
      expect(await refusal(Buffer.from('Dear teacher, this is only text.'), named(format))).toContain('plain text');
  });

  it('is refused when its bytes are noise', async () => {
    const noise = Uint8Array.from({ length: 5000 }, (_, index) => (index * 7919 + (index >> 3) * 104_729) % 251);
    await refusal(noise, named(format));
  });
});

describe.each(PACKAGES)('a zip that says it is a %s', (format) => {
  it('is refused when it would unpack to more than memory holds', async () => {
    expect(await refusal(withDeclaredSize(bytesOf(named(format)), 0x7fffffff), named(format))).toContain(
      'unpacks to more',
    );
  });

  it('is refused when its parts are no XML, or declare entities that grow', async () => {
    const lol = `<?xml version="1.0"?><!DOCTYPE a [<!ENTITY a "${'ha'.repeat(50)}"><!ENTITY b "&a;&a;&a;">]><a>&b;</a>`;
    for (const content of ['<a><b></a>', lol]) {
      const bytes = zipSync(packageOf(format, content));
      expect(await refusal(bytes, named(format))).toContain(FORMAT_NAMES[format]);
    }
  });
});

function packageOf(format: FileFormat, content: string): Record<string, Uint8Array> {
  const part = strToU8(content);
  if (format === 'docx') return { 'word/document.xml': part };
  if (format === 'pptx') return { 'ppt/presentation.xml': part };
  if (format === 'xlsx') return { 'xl/workbook.xml': part, '[Content_Types].xml': part };
  if (format === 'epub') return { mimetype: strToU8('application/epub+zip'), 'META-INF/container.xml': part };
  const kind = { odt: 'text', ods: 'spreadsheet' }[format as string] ?? 'presentation';
  return { mimetype: strToU8(`application/vnd.oasis.opendocument.${kind}`), 'content.xml': part };
}

/** Overwrites the unpacked size in every central directory entry (APPNOTE 4.3.12). */
function withDeclaredSize(bytes: Uint8Array, size: number): Buffer {
  const changed = Buffer.from(bytes);
  const entry = 'PK\x01\x02';
  for (let at = changed.indexOf(entry, 0, 'latin1'); at >= 0; at = changed.indexOf(entry, at + 4, 'latin1'))
    changed.writeUInt32LE(size, at + 24);
  return changed;
}

describe('a locked file', () => {
  it('of Office is told by its container, [MS-OFFCRYPTO] section 1.3.2', async () => {
    const container = Buffer.concat([
      Buffer.from('d0cf11e0a1b11ae1', 'hex'),
      Buffer.alloc(1024),
      Buffer.from('EncryptedPackage', 'utf16le'),
    ]);
    for (const format of ['docx', 'pptx', 'xlsx'] as const) {
      const sentence = await refusal(container, named(format));
      expect(sentence).toContain('password');
      expect(sentence).toContain(FORMAT_NAMES[format]);
    }
  });

  it('of OpenDocument is told by its manifest', async () => {
    for (const [format, kind] of [
      ['odt', 'text'],
      ['odp', 'presentation'],
    ] as const) {
      const bytes = zipSync({
        mimetype: strToU8(`application/vnd.oasis.opendocument.${kind}`),
        'META-INF/manifest.xml': strToU8('<m><file-entry><encryption-data/></file-entry></m>'),
        'content.xml': Uint8Array.from([1, 2, 3]),
      });
      expect(await refusal(bytes, named(format))).toContain('password');
    }
  });

  it('as PDF is told by its password', async () => {
    expect(await refusal(readFileSync(new URL('../testing/locked.pdf', import.meta.url)), 'a.pdf')).toContain(
      'password',
    );
  });
});

describe('what cannot be read at all', () => {
  it.each([
    ['an old Word document', Buffer.from('d0cf11e0a1b11ae100', 'hex'), 'a.doc', 'old Office version'],
    ['Rich Text', Buffer.from('{\\rtf1 words}'), 'a.rtf', 'cannot be read here'],
    [
      'a HEIC picture',
      Buffer.from('0000001c6674797068656963000000006d6966316865696300000000', 'hex'),
      'a.heic',
      'HEIC',
    ],
    [
      'a program',
      Buffer.concat([Buffer.from('7f454c4602010100', 'hex'), Buffer.alloc(64)]),
      'a.out',
      'cannot be read here',
    ],
    ['a zip of something else', Buffer.from(zipSync({ 'a.txt': strToU8('a') })), 'a.zip', 'cannot be read here'],
    ['a QuickTime film of another kind', fixture('old-film.mov'), 'a.mov', 'Export it as .mp4'],
    ['an OpenDocument drawing', openDocument('graphics'), 'a.odg', 'Save it as PDF'],
    ['a sound in AIFF', Buffer.from('FORM\0\0\0\x20AIFFCOMM', 'latin1'), 'a.aiff', 'This recording is of a kind'],
    ['a sound in AMR', Buffer.from('#!AMR\n\x3c', 'latin1'), 'a.amr', 'This recording is of a kind'],
  ])('is refused with advice: %s', async (_, bytes, name, sentence) => {
    expect(await refusal(bytes, name)).toContain(sentence);
  });

  it('is no text, no page and no cell', async () => {
    expect(await refusal(Buffer.from(' \n\n '), 'a.txt')).toContain('no text');
    expect(await refusal(Buffer.from(',,\n,,\n'), 'a.csv')).toContain('no text');
    expect(await refusal(Buffer.from('a,b\n'.repeat(30_000)), 'a.csv')).toContain('50,000 cells');
  });
});

describe('script inside of a file', () => {
  it.each([
    [
      'a.html',
      '<html><body><script>alert(1)</script><p onclick="alert(2)">words <a href="javascript:alert(3)">link</a></p><iframe src="http://127.0.0.1/"></iframe></body></html>',
    ],
    ['a.md', '[link](javascript:alert(3)) words <img src=x onerror=alert(1)>'],
  ])('of %s never comes out of it', async (name, text) => {
    const { file, pictures } = await readDocument(Buffer.from(text), name);
    const kept = JSON.stringify(file);
    expect(kept).toContain('words');
    expect(kept).not.toMatch(/"link":|onclick|"src"|iframe/);
    expect(pictures.map(({ bytes }) => Buffer.from(bytes).toString()).join()).not.toContain('alert');
  });

  it('stays characters in tables', async () => {
    const { file } = await readDocument(Buffer.from('a,"<img src=x onerror=alert(1)>"\n=1+1,b\n'), 'a.csv');
    expect(file.leaves).toMatchObject([
      {
        rows: [
          [{ text: 'a' }, { text: '<img src=x onerror=alert(1)>' }],
          [{ text: '=1+1' }, { text: 'b' }],
        ],
      },
    ]);
  });
});
