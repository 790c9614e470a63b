import type { z } from 'zod';

export type Row = Record<string, unknown>;

/** What can be asked inside or outside of a transaction. Rows come back with the values of `values.ts`. */
export interface Queries {
  /** One statement with `$1`-style values. */
  query(sql: string, values?: readonly unknown[]): Promise<Row[]>;
  /** Several statements without values. */
  script(sql: string): Promise<void>;
}

export interface Database extends Queries {
  /** Commits when `work` resolves, rolls back when it rejects. Inside `work` use only the queries it is given. */
  transaction<T>(work: (tx: Queries) => Promise<T>): Promise<T>;
  /** What a PostgreSQL server does by itself: clears what was deleted, and counts again for its plans. */
  tidy(): Promise<void>;
  /** Bytes that are free where the data are kept, and those that stay so; null where that is another's care. */
  room(): Promise<{ free: number; reserve: number } | null>;
  close(): Promise<void>;
}

/** A statement that the database refused, alike for both bodies. `code` is the SQLSTATE. */
export class DatabaseError extends Error {
  constructor(
    message: string,
    readonly code: string | undefined,
    readonly constraint: string | undefined,
    readonly detail: string | undefined,
  ) {
    super(message);
    this.name = 'DatabaseError';
  }
}

/** https://www.postgresql.org/docs/15/errcodes-appendix.html */
export const UNIQUE_VIOLATION = '23505';
/** What was to be kept is of no use to the database: a text that is none, a number out of range, a value that a check refuses. */
const REFUSED_VALUES = new Set(['22021', '22P05', '22003', '23514']);

export const isRefusedValue = (error: unknown): boolean =>
  error instanceof DatabaseError && error.code !== undefined && REFUSED_VALUES.has(error.code);

/** Reads rows through a schema, so that a column that went missing is found here and not on a screen. */
export async function select<Schema extends z.ZodType>(
  queries: Queries,
  schema: Schema,
  sql: string,
  values: readonly unknown[] = [],
): Promise<z.infer<Schema>[]> {
  return (await queries.query(sql, values)).map((row) => schema.parse(row));
}

export async function selectOne<Schema extends z.ZodType>(
  queries: Queries,
  schema: Schema,
  sql: string,
  values: readonly unknown[] = [],
): Promise<z.infer<Schema> | undefined> {
  return (await select(queries, schema, sql, values))[0];
}
