import { Worker } from 'node:worker_threads';
import pLimit from 'p-limit';
import { threadOf } from '../threads/thread.ts';
import { DatabaseError, type Database, type Queries, type Row } from './database.ts';
import { lockFolder } from './folder-lock.ts';
import { RESERVE, roomIn, type Room } from './room.ts';
import type { WorkerAnswer, WorkerRequest, WorkerSettings } from './pglite-worker.ts';

type Question = WorkerRequest extends infer Request
  ? Request extends WorkerRequest
    ? Omit<Request, 'id'>
    : never
  : never;

export interface PgliteOptions extends WorkerSettings {
  /** Called when the database answers no more, and never will. */
  onLost?: (why: Error) => void;
  /** Milliseconds that a statement may take. */
  patience?: number;
  room?: Room;
}

/** The longest statement that is known, a search through everything, takes some seconds. */
const PATIENCE = 2 * 60_000;

/**
 * The embedded database, in a thread of its own so that a slow statement never stalls the others' requests.
 * @throws FolderInUse or NoRoom
 */
export async function openPglite(options: PgliteOptions): Promise<Database> {
  const { folder, cacheFolder, onLost = () => undefined, patience = PATIENCE, room = roomIn(folder) } = options;
  await room.need(0);
  const unlock = await lockFolder(folder);
  const thread = new PgliteThread({ folder, cacheFolder }, onLost, patience);
  // Whoever comes next must not find the thread still writing.
  const free = thread.gone.then(unlock);
  try {
    await thread.ready;
    return new EmbeddedDatabase(thread, room, free);
  } catch (error) {
    thread.end();
    await free;
    throw error;
  }
}

class PgliteThread {
  readonly ready: Promise<Row[]>;
  /** Resolves when the thread has ended, for whatever reason. */
  readonly gone: Promise<void>;
  readonly #worker: Worker;
  readonly #waiting = new Map<number, { resolve: (rows: Row[]) => void; reject: (error: Error) => void }>();
  readonly #onLost: (why: Error) => void;
  readonly #patience: number;
  #lastId = 0;
  #closing = false;
  #lost: Error | undefined;

  constructor(settings: WorkerSettings, onLost: (why: Error) => void, patience: number) {
    this.#onLost = onLost;
    this.#patience = patience;
    this.#worker = threadOf('database', settings);
    this.ready = new Promise((resolve, reject) => this.#waiting.set(0, { resolve, reject }));
    this.gone = new Promise((resolve) => this.#worker.once('exit', () => resolve()));
    this.#worker.on('message', (answer: WorkerAnswer) => this.#settle(answer));
    this.#worker.on('error', (error) => this.#fail(error));
    this.#worker.on('exit', () => this.#fail(new Error('The database thread has ended')));
  }

  ask(question: Question): Promise<Row[]> {
    if (this.#lost) return Promise.reject(this.#lost);
    const id = ++this.#lastId;
    this.#closing ||= question.type === 'close';
    return new Promise((resolve, reject) => {
      // What is told in a script, e.g. a migration of all that there is, may take its time.
      const timer = question.type === 'query' ? setTimeout(() => this.#giveUp(), this.#patience) : undefined;
      timer?.unref();
      this.#waiting.set(id, {
        resolve: (rows) => (clearTimeout(timer), resolve(rows)),
        reject: (error) => (clearTimeout(timer), reject(error)),
      });
      this.#worker.postMessage({ ...question, id });
    });
  }

  #giveUp(): void {
    this.#fail(new Error(`The database has not answered for ${Math.round(this.#patience / 1000)} seconds.`));
    this.end();
  }

  /** Without asking it, whatever it is busy with. */
  end(): void {
    void this.#worker.terminate();
  }

  #settle({ id, rows, error }: WorkerAnswer): void {
    const waiting = this.#waiting.get(id);
    this.#waiting.delete(id);
    if (error) waiting?.reject(new DatabaseError(error.message, error.code, error.constraint, error.detail));
    else waiting?.resolve((rows ?? []).map(withBuffers));
  }

  #fail(error: Error): void {
    if (!this.#closing && this.#lastId > 0) this.#onLost(error);
    this.#closing = true;
    this.#lost ??= error;
    for (const waiting of this.#waiting.values()) waiting.reject(error);
    this.#waiting.clear();
  }
}

/** A Buffer crosses a thread as a plain Uint8Array. */
const withBuffers = (row: Row): Row =>
  Object.fromEntries(
    Object.entries(row).map(([name, value]) => [
      name,
      value instanceof Uint8Array ? Buffer.from(value.buffer, value.byteOffset, value.byteLength) : value,
    ]),
  );

/** Statements that take room. */
const WRITES = /\b(insert|update|delete|create|alter|drop|truncate|vacuum)\b/iu;

/** A view of a larger buffer would be sent with all of that. */
const onItsOwn = (value: unknown): unknown =>
  value instanceof Uint8Array && value.length < value.buffer.byteLength ? new Uint8Array(value) : value;

const bytesIn = (values: readonly unknown[]): number =>
  values.reduce<number>((sum, value) => {
    if (value instanceof Uint8Array) return sum + value.length;
    return typeof value === 'string' ? sum + 2 * value.length : sum;
  }, 0);

/** Bytes that take the database some hundredths of a second. */
const LARGE = 64 * 1024;

class EmbeddedDatabase implements Database {
  readonly #thread: PgliteThread;
  readonly #free: Promise<void>;
  readonly #room: Room;
  readonly #direct: Queries;
  readonly #large = pLimit(1);
  /** There is one connection: whoever wants it waits until the transaction before has ended. */
  #turn: Promise<unknown> = Promise.resolve();

  constructor(thread: PgliteThread, room: Room, free: Promise<void>) {
    this.#thread = thread;
    this.#free = free;
    this.#room = room;
    this.#direct = {
      query: async (sql, values = []) => {
        if (WRITES.test(sql)) await room.need(bytesIn(values));
        return thread.ask({ type: 'query', sql, values: values.map(onItsOwn) });
      },
      script: async (sql) => void (await thread.ask({ type: 'script', sql })),
    };
  }

  /** Pieces of what is uploaded queue up among themselves, so that nobody has more than one of them before them. */
  query(sql: string, values: readonly unknown[] = []): Promise<Row[]> {
    const ask = (): Promise<Row[]> => this.#inTurn(() => this.#direct.query(sql, values));
    return bytesIn(values) > LARGE ? this.#large(ask) : ask();
  }

  script(sql: string): Promise<void> {
    return this.#inTurn(() => this.#direct.script(sql));
  }

  transaction<T>(work: (tx: Queries) => Promise<T>): Promise<T> {
    return this.#inTurn(async () => {
      await this.#direct.script('begin');
      try {
        const result = await work(this.#direct);
        await this.#direct.script('commit');
        return result;
      } catch (error) {
        await this.#direct.script('rollback');
        throw error;
      }
    });
  }

  /** Table by table, so that others get their turn; without the bytes of media, which would take long. */
  async tidy(): Promise<void> {
    const tables = await this.query("select quote_ident(tablename) as name from pg_tables where schemaname = 'public'");
    for (const { name } of tables) await this.query(`vacuum (analyze, process_toast false) ${String(name)}`);
  }

  async room(): Promise<{ free: number; reserve: number }> {
    return { free: await this.#room.free(), reserve: RESERVE };
  }

  async close(): Promise<void> {
    await this.#inTurn(() => this.#thread.ask({ type: 'close' }));
    await this.#free;
  }

  #inTurn<T>(work: () => Promise<T>): Promise<T> {
    const result = this.#turn.then(work);
    this.#turn = result.catch(() => undefined);
    return result;
  }
}
