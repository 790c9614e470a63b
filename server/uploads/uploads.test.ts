import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { request } from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import { Upload } from 'tus-js-client';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { strToU8, unzipSync, zipSync } from 'fflate';
import { NO_WORDS } from '../../contract/said.ts';
import { openSession } from '../http/person-of.ts';
import { findMedium, readWholeMedium } from '../media/media.ts';
import { purge } from '../purge.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { essay, handIn, startTestSchool, type TestSchool } from '../testing/school.ts';

const TUS = { 'Tus-Resumable': '1.0.0' };
const sha256 = (bytes: Buffer): Buffer => createHash('sha256').update(bytes).digest();

describe.each(bodies)('uploads on $name', ({ name, open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  const tokens: Record<string, string> = {};
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    for (const who of ['teacher', 'author', 'classmate'] as const)
      tokens[who] = await openSession(test.db, school.ids[who]);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  type Who = 'teacher' | 'author' | 'classmate';
  const cookie = (who: Who) => ({ Cookie: `vivid_session=${tokens[who]}` });
  const at = (path: string): string => `${school.address}/api${path}`;

  const ask = (who: Who, method: string, path: string, headers: Record<string, string> = {}, body?: Buffer) =>
    fetch(at(path), {
      method,
      headers: { ...TUS, ...cookie(who), ...headers },
      ...(body && { body: new Uint8Array(body) }),
    });
  async function begin(who: Who, length: number): Promise<string> {
    const answer = await ask(who, 'POST', '/uploads', { 'Upload-Length': String(length) });
    expect(answer.status).toBe(201);
    return answer.headers.get('Location')!.replace('/api/uploads/', '');
  }
  const goOn = (who: Who, id: string, offset: number, body: Buffer) =>
    ask(
      who,
      'PATCH',
      `/uploads/${id}`,
      { 'Upload-Offset': String(offset), 'Content-Type': 'application/offset+octet-stream' },
      body,
    );
  const offsetOf = async (who: Who, id: string): Promise<number> =>
    Number((await ask(who, 'HEAD', `/uploads/${id}`)).headers.get('Upload-Offset'));

  const remarkWith = (upload: string) =>
    school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${randomUUID()}`, {
      body: {
        body: { anchor: { type: 'whole' }, kind: 'next', said: { ...NO_WORDS, file: { name: 'bytes.bin' } } },
        uploads: [{ upload, name: 'bytes.bin' }],
      },
    });
  let submission = '';
  beforeAll(async () => {
    submission = await handIn(school);
  });
  const kept = async (bytes: Buffer): Promise<Buffer> =>
    readWholeMedium(test.db, sha256(bytes), (await findMedium(test.db, sha256(bytes)))!);

  it('come in as the client of the protocol sends them, and become what is handed in', async () => {
    const parts = unzipSync(await essay());
    const bytes = Buffer.from(zipSync({ ...parts, 'word/padding.bin': randomBytes(700_000) }, { level: 0 }));
    const url = await new Promise<string>((resolve, reject) => {
      const upload: Upload = new Upload(bytes, {
        ...{ endpoint: at('/uploads'), chunkSize: 300_000, headers: cookie('author'), retryDelays: null },
        uploadDataDuringCreation: true,
        onError: reject,
        onSuccess: () => resolve(upload.url!),
      });
      upload.start();
    });
    const id = url.split('/').at(-1)!;
    const answer = await school.as.author.send('POST', `/assignments/${school.assignment}/submissions`, {
      body: { uploads: [{ upload: id, name: 'Essay über Fähren.docx' }] },
    });
    expect(answer.status).toBe(200);
    const { submission: work } = answer.json as { submission: string };
    const file = await school.as.teacher.fetch(`/submissions/${work}/files/0`);
    expect(Buffer.from(await file.arrayBuffer()).equals(bytes)).toBe(true);
    const { json } = await school.as.teacher.send('GET', `/submissions/${work}`);
    expect((json as { files: unknown }).files).toMatchObject([{ name: 'Essay über Fähren.docx' }]);
  });

  it('go on where they broke off, in whatever pieces', async () => {
    const bytes = randomBytes(600_000);
    const id = await begin('teacher', bytes.length);
    // The line breaks in the middle of a piece.
    const line = request(at(`/uploads/${id}`), {
      method: 'PATCH',
      headers: {
        ...{ ...TUS, ...cookie('teacher'), 'Upload-Offset': '0' },
        ...{ 'Content-Type': 'application/offset+octet-stream', 'Content-Length': bytes.length },
      },
    });
    line.on('error', () => undefined);
    line.write(bytes.subarray(0, 350_000));
    await sleep(300);
    line.destroy();
    await sleep(300);
    let offset = await offsetOf('teacher', id);
    expect(offset).toBe(350_000);
    expect((await goOn('teacher', id, 0, bytes)).status).toBe(409);
    expect((await remarkWith(id)).status).toBe(410);
    for (const length of [1, 99_999, 150_000]) {
      const answer = await goOn('teacher', id, offset, bytes.subarray(offset, offset + length));
      expect([answer.status, Number(answer.headers.get('Upload-Offset'))]).toEqual([204, (offset += length)]);
    }
    expect(offset).toBe(bytes.length);
    expect((await remarkWith(id)).status).toBe(200);
    expect((await kept(bytes)).equals(bytes)).toBe(true);
    // What has been referred to is not taken away.
    await ask('teacher', 'DELETE', `/uploads/${id}`);
    expect((await kept(bytes)).equals(bytes)).toBe(true);
  });

  it('that are known already are kept once', async () => {
    const bytes = randomBytes(300_000);
    for (let time = 0; time < 2; time++) {
      const id = await begin('teacher', bytes.length);
      expect((await goOn('teacher', id, 0, bytes)).status).toBe(204);
      expect((await remarkWith(id)).status).toBe(200);
    }
    expect((await kept(bytes)).equals(bytes)).toBe(true);
  });

  it('are there for nobody else', async () => {
    const bytes = Buffer.from('mine');
    const id = await begin('author', bytes.length);
    for (const who of ['teacher', 'classmate'] as const) {
      expect((await ask(who, 'HEAD', `/uploads/${id}`)).status).toBe(404);
      expect((await goOn(who, id, 0, bytes)).status).toBe(404);
      expect((await ask(who, 'DELETE', `/uploads/${id}`)).status).toBe(404);
    }
    await goOn('author', id, 0, bytes);
    expect((await remarkWith(id)).status).toBe(404);
    expect((await ask('author', 'DELETE', `/uploads/${id}`)).status).toBe(204);
    expect((await ask('author', 'HEAD', `/uploads/${id}`)).status).toBe(404);
  });

  it('that are too large are refused before they come, or while they do', async () => {
    const answer = await ask('author', 'POST', '/uploads', { 'Upload-Length': String(201 * 1024 * 1024) });
    // Said as a problem: whoever sends would take anything else for a server that is away, and try for ever.
    expect([answer.status, await answer.json()]).toMatchObject([413, { type: 'urn:vivid-margin:file-too-large' }]);
    const id = await begin('author', 2_000_000);
    for (let offset = 0; offset < 2_000_000; offset += 500_000)
      expect((await goOn('author', id, offset, randomBytes(500_000))).status).toBe(204);
    const path = `/assignments/${school.assignment}/submissions`;
    const used = await school.as.author.send('POST', path, { body: { uploads: [{ upload: id, name: 'a.docx' }] } });
    expect([used.status, (used.json as { detail: string }).detail]).toEqual([
      413,
      expect.stringContaining('larger than 1 MB'),
    ]);
    const before = await test.db.query('select count(*)::int as chunks from upload_chunks');
    expect((await school.as.author.send('POST', path, { file: randomBytes(3_000_000) })).status).toBe(413);
    const [after] = await test.db.query('select count(*)::int as chunks from upload_chunks');
    // Of twelve pieces, those of the first megabyte at most.
    expect(Number(after!.chunks) - Number(before[0]!.chunks)).toBeLessThanOrEqual(5);
  });

  it('have an end for each day, which is told before it is reached', async () => {
    const most = 2000 * 1024 * 1024;
    await test.db.query(
      `insert into uploads (id, owner, byte_length, made_at) values ($1, $2, $3, now()), ($4, $2, $3, now() - interval '2 days')`,
      [randomUUID(), school.ids.classmate, most - 10, randomUUID()],
    );
    expect((await school.as.classmate.send('GET', '/upload-use')).json).toEqual({ sent: most - 10, most, room: null });
    const { room } = (await school.as.teacher.send('GET', '/upload-use')).json as { room: { free: number } | null };
    if (name === 'PGlite') expect(room!.free).toBeGreaterThan(0);
    else expect(room).toBeNull();
    expect((await ask('classmate', 'POST', '/uploads', { 'Upload-Length': '10' })).status).toBe(201);
    // What broke off some time ago does not count any more.
    await test.db.query(
      "insert into uploads (id, owner, byte_length, made_at) values ($1, $2, 5000, now() - interval '2 hours')",
      [randomUUID(), school.ids.classmate],
    );
    expect((await school.as.classmate.send('GET', '/upload-use')).json).toMatchObject({ sent: most });
    const refused = await ask('classmate', 'POST', '/uploads', { 'Upload-Length': '1' });
    expect([refused.status, ((await refused.json()) as { detail: string }).detail]).toEqual([
      507,
      expect.stringContaining('It goes on tomorrow'),
    ]);
    const path = `/assignments/${school.assignment}/submissions`;
    expect((await school.as.classmate.send('POST', path, { file: strToU8('text') as Buffer })).status).toBe(507);
  });

  it('go when nothing came to refer to them', async () => {
    const bytes = randomBytes(1000);
    const [used, unused, begun] = [
      await begin('teacher', bytes.length),
      await begin('teacher', 5),
      await begin('teacher', 5),
    ];
    await goOn('teacher', used, 0, bytes);
    await remarkWith(used);
    await goOn('teacher', unused, 0, Buffer.from('12345'));
    await goOn('teacher', begun, 0, Buffer.from('12'));
    const left = async (days: number): Promise<boolean[]> => {
      await test.db.query('update uploads set made_at = now() - make_interval(days => $1)', [days]);
      await purge(test.db);
      const rows = await test.db.query('select id from uploads');
      return [used, unused, begun].map((id) => rows.some((row) => row.id === id));
    };
    expect(await left(0)).toEqual([true, true, true]);
    expect(await left(2)).toEqual([true, false, true]);
    expect(await left(4)).toEqual([true, false, false]);
    expect((await kept(bytes)).equals(bytes)).toBe(true);
  });
});
