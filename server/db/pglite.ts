import { Worker } from 'node:worker_threads';
import { threadOf } from '../threads/thread.ts';
import { DatabaseError, type Database, type Queries, type Row } from './database.ts';
import { lockFolder } from './folder-lock.ts';
import type { WorkerAnswer, WorkerRequest, WorkerSettings } from './pglite-worker.ts';

type Question = WorkerRequest extends infer Request
  ? Request extends WorkerRequest
    ? Omit<Request, 'id'>
    : never
  : never;

/** The embedded database, in a thread of its own so that a slow statement never stalls the others' requests. */
export async function openPglite(settings: WorkerSettings): Promise<Database> {
  const unlock = await lockFolder(settings.folder);
  const thread = new PgliteThread(settings);
  // Whoever comes next must not find the thread still writing.
  const free = thread.gone.then(unlock);
  try {
    await thread.ready;
    return new EmbeddedDatabase(thread, free);
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
  #lastId = 0;

  constructor(settings: WorkerSettings) {
    this.#worker = threadOf('database', settings);
    this.ready = new Promise((resolve, reject) => this.#waiting.set(0, { resolve, reject }));
    this.gone = new Promise((resolve) => this.#worker.once('exit', () => resolve()));
    this.#worker.on('message', (answer: WorkerAnswer) => this.#settle(answer));
    this.#worker.on('error', (error) => this.#fail(error));
    this.#worker.on('exit', () => this.#fail(new Error('The database thread has ended')));
  }

  ask(question: Question): Promise<Row[]> {
    const id = ++this.#lastId;
    return new Promise((resolve, reject) => {
      this.#waiting.set(id, { resolve, reject });
      this.#worker.postMessage({ ...question, id });
    });
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

class EmbeddedDatabase implements Database {
  readonly #thread: PgliteThread;
  readonly #free: Promise<void>;
  readonly #direct: Queries;
  /** There is one connection: whoever wants it waits until the transaction before has ended. */
  #turn: Promise<unknown> = Promise.resolve();

  constructor(thread: PgliteThread, free: Promise<void>) {
    this.#thread = thread;
    this.#free = free;
    this.#direct = {
      query: (sql, values = []) => thread.ask({ type: 'query', sql, values }),
      script: async (sql) => void (await thread.ask({ type: 'script', sql })),
    };
  }

  query(sql: string, values?: readonly unknown[]): Promise<Row[]> {
    return this.#inTurn(() => this.#direct.query(sql, values));
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
