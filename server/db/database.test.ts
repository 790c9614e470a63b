import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { DatabaseError, UNIQUE_VIOLATION } from './database.ts';
import { migrate } from './migrate.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';

describe.each(bodies)('the database on $name', ({ open }) => {
  let test: TestDatabase;
  beforeAll(async () => {
    test = await open();
  });
  afterAll(() => test.remove());

  it('answers with the same kinds of values', async () => {
    const [row] = await test.db.query(
      `select 5::bigint as big, 1.50::numeric(8, 2) as exact, '2026-02-03'::date as day,
         '2026-02-03 04:05:06.789+02'::timestamptz as instant, $1::bytea as bytes, $2::jsonb as json, $3::uuid = any($4::uuid[]) as found`,
      [Buffer.from([0, 255, 39]), JSON.stringify({ a: [1] }), ID, [ID]],
    );
    expect(row).toEqual({
      big: 5,
      exact: '1.50',
      day: '2026-02-03',
      instant: '2026-02-03T02:05:06.789Z',
      bytes: Buffer.from([0, 255, 39]),
      json: { a: [1] },
      found: true,
    });
    expect(row!.bytes).toBeInstanceOf(Buffer);
  });

  it('rolls back what throws, and goes on', async () => {
    const insert = 'insert into courses (id, title) values ($1, $2)';
    await expect(
      test.db.transaction(async (tx) => {
        await tx.query(insert, [ID, 'Tides']);
        throw new Error('halfway');
      }),
    ).rejects.toThrow('halfway');
    expect(await test.db.query('select * from courses')).toEqual([]);
  });

  it('tells a violation alike', async () => {
    const insert = 'insert into courses (id, title) values ($1, $2)';
    await test.db.query(insert, [ID, 'Tides']);
    const error = await test.db.query(insert, [ID, 'Tides']).catch((caught: unknown) => caught);
    expect(error).toBeInstanceOf(DatabaseError);
    expect(error).toMatchObject({ code: UNIQUE_VIOLATION, constraint: 'courses_pkey' });
    await test.db.query('delete from courses');
  });

  it('keeps transactions apart that run at once', async () => {
    const step = (n: number) =>
      test.db.transaction(async (tx) => {
        await tx.query('select pg_advisory_xact_lock(1)');
        const [{ count }] = (await tx.query('select count(*) from courses')) as [{ count: number }];
        await tx.query('insert into courses (id, title) values (gen_random_uuid(), $1)', [`${n}: ${count}`]);
      });
    await Promise.all([1, 2, 3, 4, 5].map(step));
    const titles = (await test.db.query('select title from courses')).map(({ title }) => String(title).split(': ')[1]);
    expect(titles.sort()).toEqual(['0', '1', '2', '3', '4']);
  });

  it('does not run a migration twice', async () => {
    await Promise.all([migrate(test.db), migrate(test.db)]);
    const runs = await test.db.query('select number, count(*) as times from migrations group by number');
    expect(runs.every(({ times }) => times === 1)).toBe(true);
  });

  it('does not stall this thread while a statement is slow', async () => {
    let turns = 0;
    const timer = setInterval(() => turns++, 5);
    await test.db.query('select count(*) from generate_series(1, 3000000)');
    clearInterval(timer);
    expect(turns).toBeGreaterThan(5);
  });
});
