import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { cpSync, mkdtempSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { createServer } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Client } from '../server/testing/client.ts';
import { ROOT } from '../server/root.ts';

let folder: string;
const running: (() => void)[] = [];
beforeEach(() => {
  folder = mkdtempSync(path.join(tmpdir(), 'vivid-cli-'));
});
afterEach(() => {
  for (const stop of running.splice(0)) stop();
  rmSync(folder, { recursive: true, force: true });
});

function start(...args: string[]) {
  const child = spawn(process.execPath, [path.join(ROOT, 'scripts', 'vivid.mjs'), ...args], {
    cwd: ROOT,
    env: { ...process.env, VIVID_DATA: folder, DATABASE_URL: '' },
  });
  running.push(() => child.kill('SIGKILL'));
  return child;
}

async function vivid(args: string[], input = ''): Promise<{ code: number; out: string; err: string }> {
  const child = start(...args);
  let [out, err] = ['', ''];
  child.stdout.on('data', (chunk) => (out += String(chunk)));
  child.stderr.on('data', (chunk) => (err += String(chunk)));
  child.stdin.end(input);
  const [code] = (await once(child, 'close')) as [number];
  return { code, out, err };
}

async function serve(...args: string[]): Promise<{ address: string; stop: () => Promise<void> }> {
  const child = start('serve', '--port', '0', ...args);
  let said = '';
  for (;;) {
    const [chunk] = (await once(child.stdout, 'data')) as [Buffer];
    const address = /ready at (\S+)/.exec((said += String(chunk)))?.[1];
    if (!address) continue;
    const stop = async (): Promise<void> => {
      child.kill('SIGTERM');
      await once(child, 'exit');
    };
    return { address, stop };
  }
}

const peopleOf = async (address: string): Promise<string> => (await new Client(address).send('GET', '/school')).text;

/** The sample school takes seconds to fill: whoever wants one begins with a copy. */
let sample: { folder: string; people: string } | undefined;
async function copySample(): Promise<string> {
  if (!sample) {
    const { address, stop } = await serve('--sample');
    sample = { folder: mkdtempSync(path.join(tmpdir(), 'vivid-cli-sample-')), people: await peopleOf(address) };
    await stop();
    cpSync(folder, sample.folder, { recursive: true });
  } else cpSync(sample.folder, folder, { recursive: true });
  return sample.people;
}
afterAll(() => {
  if (sample) rmSync(sample.folder, { recursive: true });
});

describe('vivid read', () => {
  it('prints the folio of a document', async () => {
    const { code, out, err } = await vivid(['read', 'demo/documents/farid-noorzai.docx']);
    const folio = JSON.parse(out) as { text: string };
    expect([code, err]).toEqual([0, '']);
    expect(folio).toEqual({
      format: 'docx',
      title: 'The Ferry Stage and What Grows on It',
      language: 'en-US',
      text: expect.stringContaining('fourteen wooden posts') as string,
      leaves: [{ label: 'Text', kind: 'text', start: 0, end: folio.text.length }],
    });
  });

  it.each([
    ['a file that is not there', 'nowhere.docx', 'There is no file'],
    ['a folder', 'demo', 'This is a folder'],
    ['what is no document', process.execPath, 'of a kind that cannot be read here'],
  ])('says in one line what is wrong with %s', async (_, file, sentence) => {
    const { code, out, err } = await vivid(['read', file]);
    expect([code, out]).toEqual([1, '']);
    expect(err).toContain(sentence);
    expect(err.trim().split('\n')).toHaveLength(1);
  });

  it('says in one line that a file is wanted', async () => {
    const { code, err } = await vivid(['read']);
    expect([code, err]).toEqual([1, "error: missing required argument 'file'\n"]);
  });

  it('does not trust an empty file', async () => {
    const file = path.join(folder, 'empty.docx');
    writeFileSync(file, '');
    expect(await vivid(['read', file])).toMatchObject({ code: 1, err: expect.stringContaining('is empty') as string });
  });
});

describe('vivid reattach', () => {
  const documents = ['demo/documents/bronagh-tully.docx', 'demo/documents/bronagh-tully-2.docx'];
  const anchorsFile = (anchors: unknown): string => {
    const file = path.join(folder, 'anchors.json');
    writeFileSync(file, typeof anchors === 'string' ? anchors : JSON.stringify(anchors));
    return file;
  };

  it('prints where anchors belong in the next version of a document', { timeout: 60_000 }, async () => {
    const anchors = [
      { id: 'quote', exact: 'What surprised me was how sharp the edges were.' },
      { id: 'edited', exact: 'It does not explain the lower ones.', start: null, end: null },
      { id: 'gone', exact: 'I would like to go back in winter' },
      { id: 'offsets', start: 0, end: 12 },
    ];
    const { code, out, err } = await vivid(['reattach', ...documents, anchorsFile(anchors)]);
    expect([code, err]).toEqual([0, '']);
    const places = JSON.parse(out) as { id: string; status: string; start: number | null; end: number | null }[];
    expect(places.map(({ id, status }) => [id, status])).toEqual([
      ['quote', 'same'],
      ['edited', 'changed'],
      ['gone', 'lost'],
      ['offsets', 'same'],
    ]);
    const { text } = JSON.parse((await vivid(['read', documents[1]!])).out) as { text: string };
    const words = ({ start, end }: { start: number | null; end: number | null }): string | undefined =>
      start === null || end === null ? undefined : text.slice(start, end);
    expect(places.map(words)).toEqual(
      [
        'What surprised me was how sharp the edges were.',
        'It cannot explain the lower ones.',
        undefined,
        'Pellow Slip ',
      ].map((expected) => expected?.trim()),
    );
  });

  it.each([
    ['no JSON', '{', 'is not JSON'],
    ['an anchor without words and offsets', [{ id: 'a' }], 'start and end, or exact'],
  ])('says in one line what is wrong with %s', async (_, anchors, sentence) => {
    const { code, out, err } = await vivid(['reattach', ...documents, anchorsFile(anchors)]);
    expect([code, out]).toEqual([1, '']);
    expect(err).toContain(sentence);
    expect(err.trim().split('\n')).toHaveLength(1);
  });
});

describe('vivid annotations', () => {
  it('prints the remarks on a work, and reads them back with their recordings', { timeout: 120_000 }, async () => {
    await copySample();
    const { address, stop } = await serve('--sample');
    const teacher = new Client(address);
    await teacher.send('POST', '/session', { body: { login: 'tamsin-adeyemi', password: 'shoreline' } });
    const { items } = (await teacher.send('POST', '/waiting', { body: {} })).json as {
      items: { submission: string; student: string }[];
    };
    const { submission } = items.find(({ student }) => student === 'Dagny Holmqvist')!;
    const before = (await teacher.send('GET', `/submissions/${submission}/feedback`)).json as {
      remarks: { private: boolean; recording: object | null }[];
    };
    // A private note never leaves the school.
    const given = before.remarks.filter((remark) => !remark.private);
    await stop();

    const sounds = path.join(folder, 'sounds');
    const { code, out } = await vivid(['annotations', submission, '--sounds', sounds]);
    expect([code, (JSON.parse(out) as { items: object[] }).items.length]).toEqual([0, given.length]);
    expect(given.length).toBeLessThan(before.remarks.length);
    expect(readdirSync(sounds)).toHaveLength(given.filter(({ recording }) => recording).length);
    const file = path.join(folder, 'remarks.json');
    writeFileSync(file, out);
    const back = await vivid(['annotations', submission, '--import', file, '--sounds', sounds]);
    expect(JSON.parse(back.out)).toEqual({ made: 0, known: given.length });
    expect(await vivid(['annotations', 'nothing'])).toMatchObject({
      code: 1,
      err: 'nothing is no identifier of a work.\n',
    });
  });
});

describe('vivid serve', () => {
  it('refuses a folder that another server uses, and a port that is taken', { timeout: 120_000 }, async () => {
    const { stop } = await serve();
    const second = await vivid(['serve', '--port', '0']);
    expect(second).toMatchObject({
      code: 1,
      err: expect.stringContaining('is in use by another Vivid Margin') as string,
    });
    await stop();

    const other = createServer().listen(0, '127.0.0.1');
    await once(other, 'listening');
    const { port } = other.address() as AddressInfo;
    const taken = await vivid(['serve', '--port', String(port)]);
    other.close();
    expect(taken).toMatchObject({ code: 1, err: expect.stringContaining(`Port ${port} is taken`) as string });
  });

  it(
    'keeps the sample school between two starts, lets nobody take it for a real one, and starts over when asked',
    { timeout: 120_000 },
    async () => {
      const before = await copySample();
      const sentence = 'in which anybody can sign in as anybody';
      const real = await vivid(['serve', '--port', '0']);
      expect(real).toMatchObject({ code: 1, err: expect.stringContaining(sentence) as string });
      const added = await vivid(['add-person', '--name', 'A', '--login', 'a'], 'a long password');
      expect(added).toMatchObject({ code: 1, err: expect.stringContaining(sentence) as string });

      const first = await serve('--sample');
      expect(await peopleOf(first.address)).toBe(before);
      await first.stop();
      const second = await serve('--sample', '--fresh');
      expect(await peopleOf(second.address)).not.toBe(before);
      await second.stop();
    },
  );

  it('names the setting that is wrong', async () => {
    process.env.VIVID_MAX_FILE_MB = 'many';
    const { code, err } = await vivid(['serve']);
    delete process.env.VIVID_MAX_FILE_MB;
    expect(code).toBe(1);
    expect(err).toContain('VIVID_MAX_FILE_MB');
  });
});

describe('vivid add-person', () => {
  it('makes people who can sign in with name and password', { timeout: 60_000 }, async () => {
    const add = (login: string, ...more: string[]) =>
      vivid(['add-person', '--name', login.toUpperCase(), '--login', login, ...more], 'a long password\n');
    expect((await add('ada', '--teaches', 'Tides')).code).toBe(0);
    expect((await add('bo', '--learns', 'Tides')).code).toBe(0);
    expect(await add('ada')).toMatchObject({ code: 1, err: 'The login “ada” is taken.\n' });
    const short = await vivid(['add-person', '--name', 'C', '--login', 'c'], 'short');
    expect(short).toMatchObject({ code: 1, err: expect.stringContaining('at least 8 characters') as string });

    const { address, stop } = await serve();
    const person = async (login: string) =>
      (await new Client(address).send('POST', '/session', { body: { login, password: 'a long password' } })).json;
    expect(await person('ada')).toMatchObject({ person: { name: 'ADA', teaches: true, learns: false } });
    expect(await person('bo')).toMatchObject({ person: { name: 'BO', teaches: false, learns: true } });
    await stop();
  });
});
