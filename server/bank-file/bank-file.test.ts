import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate';
import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { createRequire } from 'node:module';
import { readFileSync } from 'node:fs';
import jsonld from 'jsonld';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BankReport } from '../../contract/bank-file.ts';
import type { BankedRemark } from '../../contract/bank.ts';
import { NO_WORDS } from '../../contract/said.ts';
import { decodeSpeech } from '../speech/decode.ts';
import { installed } from '../speech/installed.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { SOUND, startTestSchool, voice, type TestSchool } from '../testing/school.ts';
import { putTranscript, putTranslation } from '../transcripts/queries.ts';
import { openBag, sha256 } from './bag.ts';
import { asOgg } from './ogg.ts';
import { planOf } from './plan.ts';

const ABOUT = { description: 'Longer words', kind: 'repair', criterion: 'Evidence', gap: null };
const { stamp: _stamp, criterion: _criterion, private: _private, ...CONTENT } = NO_WORDS;
const require = createRequire(import.meta.url);
const CONTEXT = JSON.parse(readFileSync(new URL('../testing/anno-context.json', import.meta.url), 'utf8')) as object;

type Files = Record<string, Uint8Array>;

describe.each(bodies)('a bank as a file on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let file: Buffer;
  const spoken = randomUUID();

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    await keep({ name: 'Where from?', tags: ['source'], recording: { id: spoken, sound: SOUND } }, await voice());
    const words = [
      { word: 'Name', start: 0.1, end: 0.4 },
      { word: 'it.', start: 0.5, end: 0.9 },
    ];
    const read = { source: 'person' as const, engine: '', approximate: false, read: true };
    await putTranscript(test.db, spoken, { language: 'en', text: 'Name it.', words, ...read }, null);
    await putTranslation(test.db, spoken, { language: 'es', text: 'Nómbralo.', source: 'person', engine: '' });
    await keep({
      name: '=1+1',
      text: 'Written; with “signs”,\nand lines.',
      tags: ['a', 'b'],
      link: 'https://example.org/',
    });
    await keep({ name: 'Emoji', reaction: '👏' });
    await keep({ name: 'Words', suggestion: 'perhaps' });
    file = await saved('/bank/file');
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  async function keep(more: object, sound?: Buffer): Promise<void> {
    const body = { ...CONTENT, ...ABOUT, ...more };
    const answer = await school.as.teacher.send('PUT', `/bank/${randomUUID()}`, {
      body,
      ...(sound && { file: sound }),
    });
    expect(answer.status).toBe(200);
  }
  const saved = async (path: string, who: 'teacher' | 'colleague' = 'teacher'): Promise<Buffer> =>
    Buffer.from(await (await school.as[who].fetch(path)).arrayBuffer());
  const bring = async (bytes: Uint8Array, bringIn: boolean, who: 'teacher' | 'colleague' = 'colleague') => {
    const answer = await school.as[who].send('POST', '/bank/import', { body: { bringIn }, file: Buffer.from(bytes) });
    return { status: answer.status, report: answer.json as BankReport, text: answer.text };
  };
  const bankOf = async (who: 'teacher' | 'colleague'): Promise<BankedRemark[]> => {
    const answer = await school.as[who].send('POST', '/bank/find', { body: { query: '', order: 'name' } });
    return (answer.json as { remarks: BankedRemark[] }).remarks;
  };
  /** The same bag with some files changed, its list made anew unless it is to be wrong. */
  function changed(change: (files: Files) => Files, { listed = true } = {}): Uint8Array {
    const files = change(unzipSync(file));
    if (!listed) return zipSync(files);
    const payload = Object.entries(files).filter(([name]) => name.startsWith('remark-bank/data/'));
    const list = payload.map(([name, bytes]) => `${sha256(bytes)}  ${name.slice('remark-bank/'.length)}\n`).join('');
    return zipSync({ ...files, 'remark-bank/manifest-sha256.txt': strToU8(list) });
  }
  const PAGE = 'remark-bank/data/bank.jsonld';
  const withPage = (change: (page: { version: unknown; items: Record<string, unknown>[] }) => void): Uint8Array =>
    changed((files) => {
      const page = JSON.parse(strFromU8(files[PAGE]!)) as { version: unknown; items: Record<string, unknown>[] };
      change(page);
      return { ...files, [PAGE]: strToU8(JSON.stringify(page)) };
    });

  it('is a bag (RFC 8493) with Ogg Opus, WebVTT and JSON-LD that a processor for it understands', async () => {
    const files = unzipSync(file);
    expect(strFromU8(files['remark-bank/bagit.txt']!)).toBe('BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n');
    const payload = openBag(new Map(Object.entries(files)));
    expect([...payload.keys()].map((name) => name.split('/')[1]).sort()).toEqual(['audio', 'bank.jsonld', 'captions']);
    const oxum = [...payload.values()].reduce((sum, { length }) => sum + length, 0);
    expect(strFromU8(files['remark-bank/bag-info.txt']!)).toContain(`Payload-Oxum: ${oxum}.3\n`);
    const captions = [...payload].find(([name]) => name.endsWith('.vtt'))![1];
    expect(strFromU8(captions)).toMatch(/^WEBVTT/u);
    const page = JSON.parse(strFromU8(payload.get('data/bank.jsonld')!)) as object;
    const documentLoader = (documentUrl: string) =>
      Promise.resolve({ document: CONTEXT, documentUrl, contextUrl: undefined });
    const [expanded] = (await jsonld.expand(page, { documentLoader })) as unknown[];
    const text = JSON.stringify(expanded);
    for (const term of [
      'https://schema.org/headline',
      'http://www.w3.org/ns/oa#hasBody',
      'urn:vivid-margin:terms#peaks',
    ])
      expect(text).toContain(term);
  });

  it.skipIf(!installed('python3') || !installed('sha256sum'))(
    'is read by an unzip that is not ours, and its list holds by sha256sum',
    () => {
      const folder = execFileSync('mktemp', ['-d'], { encoding: 'utf8' }).trim();
      execFileSync(
        'sh',
        [
          '-c',
          'cat > bank.zip && python3 -m zipfile -e bank.zip . && cd remark-bank && sha256sum -c manifest-sha256.txt',
        ],
        {
          cwd: folder,
          input: file,
        },
      );
    },
  );

  it('comes back whole in another bank; a second time it adds nothing', async () => {
    const look = await bring(file, false);
    expect(look.report).toMatchObject({ add: 4, merge: 0, known: 0, refuse: 0, done: false });
    expect(await bankOf('colleague')).toEqual([]);
    expect((await bring(file, true)).report).toMatchObject({ add: 4, done: true });
    const [theirs, ours] = [await bankOf('colleague'), await bankOf('teacher')];
    const plain = ({
      name,
      text,
      link,
      reaction,
      suggestion,
      tags,
      description,
      kind,
      criterion,
      recording,
    }: BankedRemark) => ({
      ...{ name, text, link, reaction, suggestion, tags, description, kind, criterion },
      spoken: recording && { ...recording.sound, words: recording.transcript, others: recording.translations },
    });
    expect(theirs.map(plain)).toEqual(ours.map(plain));
    const own = theirs.find(({ recording }) => recording)!.recording!;
    const sound = await school.as.colleague.fetch(`/recordings/${own.id}/sound/${own.sound.sha256}`);
    expect(Buffer.from(await sound.arrayBuffer()).equals(await voice())).toBe(true);
    expect((await bring(file, true)).report).toMatchObject({ add: 0, known: 4, done: true });
    expect(await bankOf('colleague')).toHaveLength(4);
  });

  it('what the file says more of a known one is taken over', async () => {
    const more = withPage(({ items }) => {
      (items[0]!.body as object[]).push({ type: 'TextualBody', purpose: 'tagging', value: 'second look' });
    });
    const { report } = await bring(more, true);
    expect(report).toMatchObject({ add: 0, merge: 1, known: 3 });
    expect((await bankOf('colleague')).find(({ name }) => name === 'Where from?')!.tags).toEqual([
      'source',
      'second look',
    ]);
  });

  it.each<[string, () => Uint8Array, RegExp]>([
    ['a path outside', () => changed((files) => ({ ...files, '../evil.txt': strToU8('x') })), /names a file outside/],
    [
      'a changed file',
      () => changed((files) => ({ ...files, [PAGE]: strToU8('{}') }), { listed: false }),
      /changed or damaged/,
    ],
    [
      'a missing file',
      () => changed(({ [PAGE]: _, ...files }) => files, { listed: false }),
      /is in its list, but not in it/,
    ],
    [
      'a file more',
      () => changed((files) => ({ ...files, 'remark-bank/data/more': strToU8('x') }), { listed: false }),
      /not in its list/,
    ],
    [
      'no list',
      () => changed(({ 'remark-bank/manifest-sha256.txt': _, ...files }) => files, { listed: false }),
      /missing or empty/,
    ],
    ['no bag', () => zipSync({ 'a.txt': strToU8('a') }), /no remark bank/],
    ['another version', () => withPage((page) => void (page.version = 9)), /another version/],
    ['no JSON', () => changed((files) => ({ ...files, [PAGE]: strToU8('{') })), /is not JSON/],
    ['a zip that was cut short', () => file.subarray(0, file.length / 2), /damaged or was cut short/],
    ['something else', () => Buffer.from('hello'), /neither a bank/],
    ['50,000 rows', () => Buffer.from(`text\n${'A remark.\n'.repeat(50_000)}`), /50000 remarks; 5000 is the most/],
  ])('%s: refused in words, and nothing is brought in', async (_, make, why) => {
    const before = await bankOf('colleague');
    const { status, text } = await bring(make(), true);
    expect([status, text]).toEqual([422, expect.stringMatching(why)]);
    expect(await bankOf('colleague')).toEqual(before);
  });

  it('a line that is none is told, and the others come', async () => {
    const audio = Object.keys(unzipSync(file)).find((name) => name.includes('/audio/'))!;
    const odd = withPage(({ items }) => {
      const fresh: Record<string, unknown>[] = items.map((item) => ({ ...item, id: `urn:uuid:${randomUUID()}` }));
      fresh[1]!.about = { name: '', termCode: 'NOT A KIND' };
      items.splice(0, items.length, ...fresh, { nothing: true } as never);
    });
    const broken = unzipSync(odd);
    const { report } = await bring(zipSync(relisted({ ...broken, [audio]: strToU8('no sound') })), false, 'teacher');
    const fates = report.lines.map(({ line, fate, why }) => [line, fate, why]);
    expect(fates[1]).toEqual([2, 'refuse', expect.stringContaining('is no kind of remark')]);
    expect(fates[4]).toEqual([5, 'refuse', expect.any(String)]);
    expect(report.refuse).toBe(2);
  });

  const relisted = (files: Files): Files => {
    const payload = Object.entries(files).filter(([name]) => name.startsWith('remark-bank/data/'));
    const list = payload.map(([name, bytes]) => `${sha256(bytes)}  ${name.slice('remark-bank/'.length)}\n`).join('');
    return { ...files, 'remark-bank/manifest-sha256.txt': strToU8(list) };
  };

  it('a sound that is none, and a remark of 20,000 words', async () => {
    const audio = Object.keys(unzipSync(file)).find((name) => name.includes('/audio/'))!;
    const fresh = withPage(({ items }) => {
      items.forEach((item) => (item.id = `urn:uuid:${randomUUID()}`));
      const spokenBody = (items[0]!.body as { value?: string; words?: object[] }[])[1]!;
      Object.assign(spokenBody, { value: 'said otherwise', words: [] });
      items[1]!.body = [{ type: 'TextualBody', purpose: 'commenting', language: 'en', value: 'word '.repeat(20_000) }];
      items.length = 2;
    });
    const { report } = await bring(
      zipSync(relisted({ ...unzipSync(fresh), [audio]: strToU8('no sound') })),
      true,
      'teacher',
    );
    expect(report.lines.map(({ fate, why }) => [fate, why])).toEqual([
      ['refuse', 'its sound is no recording'],
      ['refuse', expect.stringMatching(/body/)],
    ]);
  });

  it('goes out and comes in as a table, formulas being none', async () => {
    const bytes = await saved('/bank/table');
    // Spreadsheets tell UTF-8 by its mark.
    expect([...bytes.subarray(0, 3)]).toEqual([0xef, 0xbb, 0xbf]);
    const table = strFromU8(bytes);
    expect(table).toMatch(/^name,text,description/u);
    expect(table).toContain(`'=1+1`);
    expect(table).toContain('Name it.');
    const rows = 'Name,Text,Tags,Kind\r\n=2+2,"Two lines,\nof text",one; two,question\r\nNo text,,,\r\n,Alone,,\r\n';
    const { report } = await bring(Buffer.from(rows), true);
    expect(report.lines).toMatchObject([
      { line: 2, fate: 'add', name: '=2+2' },
      { line: 3, fate: 'refuse', why: 'it has no text' },
      { line: 4, fate: 'add' },
    ]);
    expect((await bankOf('colleague')).find(({ name }) => name === '=2+2')).toMatchObject({
      ...{ text: 'Two lines,\nof text', tags: ['one', 'two'], kind: 'question' },
    });
  });

  it('is only one’s own, and for teachers', async () => {
    expect((await school.as.author.send('POST', '/bank/import', { body: { bringIn: true }, file })).status).toBe(403);
    expect(Object.keys(unzipSync(await saved('/bank/file', 'colleague'))).length).toBeGreaterThan(3);
    const empty = unzipSync(Buffer.from(await (await school.as.author.fetch('/bank/file')).arrayBuffer()));
    expect(strFromU8(empty[PAGE]!)).toContain('"items":[\n\n]');
  });
});

describe('asOgg', () => {
  it('puts Opus into Ogg without encoding it again', async () => {
    const webm = readFileSync(require.resolve('../../demo/documents/catrin-pryce.webm'));
    const ogg = (await asOgg(webm))!;
    expect(Buffer.from(ogg.subarray(0, 4)).toString()).toBe('OggS');
    expect(Buffer.from(ogg).includes('OpusHead')).toBe(true);
    const [before, after] = [await decodeSpeech(webm), await decodeSpeech(ogg)];
    expect(Math.abs(before.length - after.length)).toBeLessThan(2000);
    expect(await asOgg(await voice())).toBeUndefined();
    expect(await asOgg(Buffer.from('no sound')).catch(() => undefined)).toBeUndefined();
  });
});

describe('planOf', () => {
  const content = { name: 'x', text: 'Say it.', link: null, reaction: null, suggestion: null, tags: ['a'] };
  const rest = { description: '', kind: 'next', criterion: '', gap: null };
  const remark = { id: 'new', madeAt: null, content: { ...content, ...rest }, language: 'en', sound: null };
  const line = (more: object = {}) => ({
    ...{ line: 1, name: 'x', remark: { ...remark, transcript: null, translations: [], ...more } },
  });
  const none = new Set<string>();

  it('the same words are the same, whatever their case and spaces; with a sound of another length they are not', () => {
    const known = [{ id: 'old', words: 'say it.', seconds: null, tags: ['a'] }];
    expect(planOf([line()], known, none, () => 'other')[0]!.fate).toBe('known');
    expect(
      planOf([line({ sound: { file: '', sha256: '', seconds: 3, peaks: [] } })], known, none, () => '')[0]!.fate,
    ).toBe('add');
  });

  it('two lines that say the same are one, and what is somebody else’s id gets another', () => {
    const [first, second] = planOf([line(), line({ id: 'again' })], [], new Set(['new']), () => 'other');
    expect(first).toMatchObject({ fate: 'add', remark: { id: 'other' } });
    expect(second!.fate).toBe('known');
  });
});
