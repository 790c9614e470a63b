import { folioOf, leafBlocks, leafText, textBlocks, type Block, type Folio } from '#core/folio';
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readDocument } from './read.ts';

async function read(bytes: Uint8Array | string, name: string): Promise<Folio> {
  const { file, pictures } = await readDocument(typeof bytes === 'string' ? Buffer.from(bytes) : bytes, name);
  return folioOf([file], [pictures.length]);
}
const blocksIn = ({ leaves }: Folio): Block[] => leaves.flatMap(leafBlocks);

describe('pages', () => {
  it('have its words as a browser shows them, and nothing that runs or loads', async () => {
    const folio = await read(
      readFileSync(new URL('../../demo/documents/wanja-gitau.html', import.meta.url)),
      'wanja-gitau.html',
    );
    expect(folio).toMatchObject({ title: 'A Walk with a Thermometer', language: 'en' });
    expect(folio.text).not.toMatch(/changed|sans-serif|alert/);
    const links = textBlocks(blocksIn(folio)).flatMap(({ runs }) => runs.flatMap(({ link }) => link ?? []));
    expect(links).toEqual(['https://tides.example/pools']);
    expect(blocksIn(folio).flatMap((block) => (block.type === 'picture' ? [block.alt] : []))).toEqual([
      'The coldest pool',
    ]);
    const inline = `<p>a <img src="data:image/png;base64,iVBORw0KGgo="> <img src="http://127.0.0.1/x.png" onerror="alert(1)"><img src="line.gif" alt=""><img src="sign.png" width="16"></p><dl><dt>ebb</dt><dd>falling</dd></dl>`;
    const { pictures } = await readDocument(Buffer.from(`<html><body>${inline}</body></html>`), 'a.html');
    expect(pictures.map(({ mediaType }) => mediaType)).toEqual(['image/png', 'image/svg+xml']);
    expect(Buffer.from(pictures[1]!.bytes).toString()).toContain('Missing picture: x.png');
  });

  it.each([
    ['its main part', '<nav>Home</nav><main><h1>Ebb</h1><p>It falls.</p></main><footer>Imprint</footer>'],
    ['its only article', '<div><div>Home</div><article><h1>Ebb</h1><p>It falls.</p></article></div><p>Imprint</p>'],
    ['its title', '<header>Home <h1>Ebb</h1></header><div role="main"><p>It falls.</p></div>Imprint'],
    ['its text', '<ul role="navigation"><li>Home</li></ul><h1>Ebb</h1><p>It falls.</p><nav>Imprint</nav>'],
  ])('begin with %s, and the rest stands behind it', async (_, body) => {
    const { title, leaves } = await read(`<html><head><title>Site</title></head><body>${body}</body></html>`, 'a.html');
    expect(title).toBe('Ebb');
    expect(leaves.map(leafText)).toEqual(['Ebb\nIt falls.\n', 'Home\nImprint\n']);
  });

  it('a page whose main part is empty, or that has several articles, stays as it is', async () => {
    const [one] = (await read('<html><body><p>a</p><main></main><p>b</p></body></html>', 'a.html')).leaves;
    expect(leafText(one!)).toBe('a\nb\n');
    const two = '<html><body><article>a</article>b<article>c</article></body></html>';
    expect((await read(two, 'a.html')).text).toBe('a\nb\nc\n');
  });

  it('an e-book has its chapters in order, with notes, pictures and captions, and no table of contents', async () => {
    const bytes = readFileSync(new URL('fixtures/book.epub', import.meta.url));
    const folio = await read(bytes, 'book.epub');
    expect(folio).toMatchObject({ title: 'Six Hours on a Mudflat', language: 'en-GB' });
    expect(folio.text).toBe(
      'Six Hours on a Mudflat\nZofia Krol\nBefore the tide\nI sat down at seven.\nNothing happens here.\nA curlew\nWith a flask.\nAfter the tide\nBirds came\nBirds left\nkind\nnumber\ncurlew\n7\n',
    );
    const parts = unzipSync(bytes);
    const lacking = { ...parts };
    delete lacking['EPUB/text/ch001.xhtml'];
    const { file, notes } = await readDocument(zipSync(lacking), 'book.epub');
    expect(leafText(file.leaves[0]!)).toContain('The chapter “ch001.xhtml” is missing.\nAfter the tide\n');
    expect(notes[0]!.note).toContain('ch001.xhtml');
    const selfClosed = strFromU8(parts['EPUB/text/ch001.xhtml']!).replace('<body', '<title/><body');
    expect((await read(zipSync({ ...parts, 'EPUB/text/ch001.xhtml': strToU8(selfClosed) }), 'a.epub')).text).toBe(
      folio.text,
    );
    const encryption = strToU8(
      '<encryption><EncryptedData><CipherData><CipherReference URI="EPUB/text/ch001.xhtml"/></CipherData></EncryptedData></encryption>',
    );
    await expect(read(zipSync({ ...parts, 'META-INF/encryption.xml': encryption }), 'a.epub')).rejects.toThrow(
      'locked',
    );
  });
});
