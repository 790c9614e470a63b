import pg from 'pg';
import { DatabaseError, type Database, type Queries } from './database.ts';
import { parsers } from './values.ts';

/** A PostgreSQL server, by its connection string. */
export function openPool(connectionString: string): Database {
  const pool = new pg.Pool({ connectionString, types: { getTypeParser } });
  // An idle connection that breaks is replaced by the pool; without a listener it would end the process.
  pool.on('error', () => undefined);
  return {
    ...queriesOf(pool),
    transaction: (work) => inTransaction(pool, work),
    tidy: () => Promise.resolve(),
    room: () => Promise.resolve(null),
    close: () => pool.end(),
  };
}

function getTypeParser(oid: number, format?: 'text' | 'binary'): (text: string) => unknown {
  const own = (parsers as Record<number, (text: string) => unknown>)[oid];
  return own ?? (pg.types.getTypeParser(oid, format as 'text') as (text: string) => unknown);
}

const queriesOf = (runner: pg.Pool | pg.PoolClient): Queries => ({
  query: async (sql, values = []) => (await runner.query(sql, [...values]).catch(asDatabaseError)).rows,
  script: async (sql) => void (await runner.query(sql).catch(asDatabaseError)),
});

async function inTransaction<T>(pool: pg.Pool, work: (tx: Queries) => Promise<T>): Promise<T> {
  const client = await pool.connect();
  let broken: Error | undefined;
  try {
    await client.query('begin');
    const result = await work(queriesOf(client));
    await client.query('commit');
    return result;
  } catch (error) {
    await client.query('rollback').catch((failure: Error) => (broken = failure));
    throw error;
  } finally {
    client.release(broken);
  }
}

function asDatabaseError(error: unknown): never {
  if (error instanceof pg.DatabaseError)
    throw new DatabaseError(error.message, error.code, error.constraint, error.detail);
  throw error;
}
