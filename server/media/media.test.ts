import { createHash, randomBytes, randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { MEDIA_HOLDERS, purge } from '../purge.ts';
import { HOLDERS } from '../recordings/queries.ts';
import { purgeRemarks } from '../remarks/queries.ts';
import type { Queries } from '../db/database.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';
import { findMedium, keepMedium, readMedium, readWholeMedium } from './media.ts';

const CHUNK = 256 * 1024;

describe.each(bodies)('media on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const keep = (bytes: Buffer) => test.db.transaction((tx) => keepMedium(tx, bytes, 'audio/webm'));
  async function read(sha256: Buffer, start: number, end: number): Promise<Buffer> {
    const parts: Buffer[] = [];
    for await (const part of readMedium(test.db, sha256, start, end)) parts.push(part);
    return Buffer.concat(parts);
  }

  it.each([1, CHUNK - 1, CHUNK, CHUNK + 1, 2 * CHUNK, 3 * CHUNK + 17])(
    'come back byte for byte: %d bytes',
    async (length) => {
      const bytes = randomBytes(length);
      const sha256 = await keep(bytes);
      expect(sha256.equals(createHash('sha256').update(bytes).digest())).toBe(true);
      const medium = (await findMedium(test.db, sha256))!;
      expect(medium).toEqual({ mediaType: 'audio/webm', byteLength: length });
      expect((await readWholeMedium(test.db, sha256, medium)).equals(bytes)).toBe(true);
    },
  );

  it('can be read from anywhere to anywhere, across chunks', async () => {
    const bytes = randomBytes(3 * CHUNK + 100);
    const sha256 = await keep(bytes);
    const edges = [0, 1, CHUNK - 1, CHUNK, CHUNK + 1, 2 * CHUNK, bytes.length - 1];
    for (const start of edges)
      for (const end of edges.filter((edge) => edge >= start))
        expect((await read(sha256, start, end)).equals(bytes.subarray(start, end + 1))).toBe(true);
  });

  it('are not there before all of them is, and go on where they broke off', async () => {
    const bytes = randomBytes(3 * CHUNK);
    const sha256 = createHash('sha256').update(bytes).digest();
    let statements = 0;
    const breaking: Queries = {
      script: (sql) => test.db.script(sql),
      query: (sql, values) => (++statements > 3 ? Promise.reject(new Error('killed')) : test.db.query(sql, values)),
    };
    await expect(keepMedium(breaking, bytes, 'audio/webm')).rejects.toThrow('killed');
    expect(await findMedium(test.db, sha256)).toBeUndefined();
    await keepMedium(test.db, bytes, 'audio/webm');
    const medium = (await findMedium(test.db, sha256))!;
    expect((await readWholeMedium(test.db, sha256, medium)).equals(bytes)).toBe(true);
  });

  it('let others have their turn between the pieces', async () => {
    // A connection that has to be opened first would come after everything.
    await Promise.all(['select 1', 'select 1'].map((query) => test.db.query(query)));
    const order: string[] = [];
    const large = keepMedium(test.db, randomBytes(20 * CHUNK), 'audio/webm').then(() => order.push('large'));
    await test.db.query('select 1').then(() => order.push('small'));
    await large;
    expect(order).toEqual(['small', 'large']);
  });

  it('are kept once, whoever says the same', async () => {
    const bytes = randomBytes(CHUNK + 5);
    await Promise.all([keep(bytes), keep(bytes)]);
    const sha256 = await keep(bytes);
    const chunks = await test.db.query('select position from media_chunks where sha256 = $1', [sha256]);
    expect(chunks).toHaveLength(2);
  });

  it('go when nothing refers to them, and stay when something does', async () => {
    const loose = await keep(randomBytes(10));
    const submission = await handIn(school);
    const remark = await sayRemark(school, submission);
    const [{ sound }] = (await test.db.query('select medium as sound from recordings where id = $1', [remark])) as [
      { sound: Buffer },
    ];
    await purge(test.db);
    expect(await findMedium(test.db, loose), 'somebody may be about to refer to it').toBeDefined();
    await test.db.query("update media set kept_at = now() - interval '25 hours'");
    await purge(test.db);
    expect(await findMedium(test.db, loose)).toBeUndefined();
    expect(await findMedium(test.db, sound)).toBeDefined();
    const [{ file }] = (await test.db.query('select file from submission_files where submission = $1', [
      submission,
    ])) as [{ file: Buffer }];
    expect(await findMedium(test.db, file)).toBeDefined();
  });

  it.each([
    ['media', MEDIA_HOLDERS],
    ['recordings', HOLDERS],
  ])('every column that points to %s is known to what clears them', async (table, known) => {
    const rows = await test.db.query(
      `select c.relname || '.' || a.attname as holder from pg_constraint k
       join pg_class c on c.oid = k.conrelid join pg_attribute a on a.attrelid = k.conrelid and a.attnum = k.conkey[1]
       where k.contype = 'f' and k.confrelid = $1::text::regclass and k.confdeltype <> 'c'`,
      [table],
    );
    expect(rows.map(({ holder }) => holder).sort()).toEqual([...known].sort());
  });

  it('a recording goes with the last that holds it, and its sound with it', async () => {
    const remark = await sayRemark(school, await handIn(school));
    await test.db.query("update remarks set put_aside_at = now() - interval '31 days' where id = $1", [remark]);
    const count = async () =>
      (await test.db.query('select count(*)::int as count from recordings where id = $1', [remark]))[0];
    expect(await count()).toEqual({ count: 1 });
    await purge(test.db);
    expect(await count()).toEqual({ count: 0 });
  });

  it('what was put aside stays for 30 days and not longer', async () => {
    const submission = await handIn(school);
    const [young, old, kept] = [
      await sayRemark(school, submission),
      await sayRemark(school, submission),
      await sayRemark(school, submission),
    ];
    const age = (remark: string, days: number) =>
      test.db.query('update remarks set put_aside_at = now() - make_interval(days => $2) where id = $1', [
        remark,
        days,
      ]);
    await age(young, 29);
    await age(old, 31);
    await purgeRemarks(test.db);
    const left = (await test.db.query('select id from remarks where submission = $1', [submission])).map(
      ({ id }) => id,
    );
    expect(left.sort()).toEqual([young, kept].sort());
  });

  it('nothing is kept of a remark whose transaction fails', async () => {
    const bytes = randomBytes(20);
    const failing = test.db.transaction(async (tx) => {
      const sound = await keepMedium(tx, bytes, 'audio/webm');
      await tx.query(
        "insert into recordings (id, owner, medium, duration, peaks, language) values ($1, $1, $2, 1, '[]', 'en')",
        [randomUUID(), sound],
      );
    });
    await expect(failing).rejects.toMatchObject({ code: '23503' });
    expect(await findMedium(test.db, createHash('sha256').update(bytes).digest())).toBeUndefined();
  });
});
