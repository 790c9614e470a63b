import { readFile, readdir } from 'node:fs/promises';
import { z } from 'zod';
import { fromRoot } from '../root.ts';
import { select, type Database } from './database.ts';

const FOLDER = fromRoot('server/db/migrations/');
const NAME = /^(\d{4})_\w+\.sql$/;

/** Any number that is ours alone: app processes that start together on one server migrate one after the other. */
const MIGRATION_LOCK = 728_411;

/** Runs the migrations that have not run yet, in order, each in one transaction. */
export async function migrate(db: Database): Promise<void> {
  await db.script(
    'create table if not exists migrations (number int primary key, name text not null, run_at timestamptz not null default now())',
  );
  const names = (await readdir(FOLDER)).filter((name) => NAME.test(name)).sort();
  for (const name of names) await runOnce(db, Number(NAME.exec(name)![1]), name);
}

async function runOnce(db: Database, number: number, name: string): Promise<void> {
  const sql = await readFile(new URL(name, FOLDER), 'utf8');
  await db.transaction(async (tx) => {
    await tx.query('select pg_advisory_xact_lock($1)', [MIGRATION_LOCK]);
    const done = await select(tx, z.object({ number: z.int() }), 'select number from migrations where number = $1', [
      number,
    ]);
    if (done.length > 0) return;
    await tx.script(sql);
    await tx.query('insert into migrations (number, name) values ($1, $2)', [number, name]);
  });
}
