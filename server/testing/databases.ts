import { randomBytes } from 'node:crypto';
import { mkdtemp } from 'node:fs/promises';
import path from 'node:path';
import { inject } from 'vitest';
import type { Database } from '../db/database.ts';
import { migrate } from '../db/migrate.ts';
import { openPglite } from '../db/pglite.ts';
import { openPool } from '../db/pool.ts';
import { ROOT } from '../root.ts';

export interface TestDatabase {
  db: Database;
  remove: () => Promise<void>;
}

type Prepare = (db: Database) => Promise<void>;

export const cacheFolder = path.join(ROOT, '.cache');

/** An embedded one takes seconds to start: it is emptied for whoever comes next. */
const idle: Database[] = [];

async function embedded(prepare: Prepare): Promise<TestDatabase> {
  const db =
    idle.pop() ??
    (await openPglite({ folder: path.join(await mkdtemp(inject('pgliteFolder')), 'database'), cacheFolder }));
  await db.script('drop schema public cascade; create schema public');
  await prepare(db);
  return { db, remove: () => Promise.resolve(void idle.push(db)) };
}

async function onServer(prepare: Prepare): Promise<TestDatabase> {
  const name = `test_${randomBytes(6).toString('hex')}`;
  const admin = openPool(inject('postgresUrl'));
  await admin.query(`create database ${name}`);
  await admin.close();
  const db = openPool(inject('postgresUrl').replace('/postgres?', `/${name}?`));
  await prepare(db);
  return { db, remove: () => db.close() };
}

/** The bodies of the database that can be tested on this machine; `prepare` makes its tables, which are all where it is left out. */
export const bodies: { name: string; open: (prepare?: Prepare) => Promise<TestDatabase> }[] = [
  { name: 'PGlite', open: (prepare = migrate) => embedded(prepare) },
  ...(inject('postgresUrl') ? [{ name: 'PostgreSQL', open: (prepare: Prepare = migrate) => onServer(prepare) }] : []),
];
