import type { Worker } from 'node:worker_threads';
import type { Suggestion } from '#core/bank';
import type { Queries } from '../db/database.ts';
import { threadOf } from '../threads/thread.ts';
import type { BankAnswer, BankRequest, BankTask } from './bank-worker.ts';
import { selectBankVersion, selectIndexRows } from './queries.ts';
import { selectHistory } from './uses.ts';

/** Finding and suggesting apart from the server's own thread, where an index of each teacher's bank is kept. */
export interface BankThread {
  /** The ids that a query finds, the best first. @param fitting those that may be among them; null for all */
  find(
    db: Queries,
    owner: string,
    wanted: { query: string; most: number; fitting: string[] | null },
  ): Promise<string[]>;
  suggest(db: Queries, owner: string, wanted: Suggest): Promise<Suggestion[]>;
  alike(db: Queries, owner: string, wanted: Alike): Promise<{ banked: string[]; said: number }>;
  stop(): Promise<void>;
}
type Suggest = Omit<BankTask & { type: 'suggest' }, 'type' | 'bank'>;
type Alike = Omit<BankTask & { type: 'alike' }, 'type' | 'bank'>;

/** How many rows are read at once. */
const PIECE = 1000;
/** Of so many passages the newest say enough. */
const MOST_HISTORY = 3000;
/** A larger bank takes a while to be read again: until then its last index answers. */
const QUICK = 2000;
/** Banks that are kept; who comes back after that waits until theirs is read again. */
const MOST_BANKS = 20;
const IDLE_MILLISECONDS = 10 * 60_000;

/** A bank as the thread has it; `size` is 0 until it is read. */
interface Loaded {
  name: string;
  version: string;
  size: number;
}

export function bankThread(): BankThread {
  const waiting = new Map<number, { done: (result: never) => void; failed: (error: Error) => void }>();
  const loaded = new Map<string, Loaded>();
  const loading = new Map<string, Promise<Loaded>>();
  let worker: Worker | undefined;
  let idle: NodeJS.Timeout | undefined;
  let next = 0;

  function start(): Worker {
    const started = threadOf('bank', {});
    started.on('message', (answer: BankAnswer) => {
      const asked = waiting.get(answer.id);
      waiting.delete(answer.id);
      if ('failed' in answer) asked?.failed(new Error(answer.failed));
      else asked?.done(answer.result as never);
      if (waiting.size === 0) rest();
    });
    started.on('error', () => giveUp(started));
    started.on('exit', () => giveUp(started));
    return started;
  }

  /** A thread that waits keeps no program from ending; one that nobody needs gives its memory back. */
  function rest(): void {
    worker?.unref();
    clearTimeout(idle);
    idle = setTimeout(() => waiting.size === 0 && void stop(), IDLE_MILLISECONDS);
    idle.unref();
  }

  function giveUp(broken: Worker): void {
    if (broken !== worker) return;
    worker = undefined;
    loaded.clear();
    for (const { failed } of waiting.values()) failed(new Error('The thread of the remark bank ended.'));
    waiting.clear();
  }

  function ask<Result>(task: BankTask): Promise<Result> {
    return new Promise((done, failed) => {
      const id = next++;
      waiting.set(id, { done, failed });
      worker ??= start();
      worker.ref();
      worker.postMessage({ id, task } satisfies BankRequest);
    });
  }

  /** The owner's bank as it is, or as it was a moment ago where reading it again takes a while. */
  async function current(db: Queries, owner: string): Promise<Loaded> {
    const version = await selectBankVersion(db, owner);
    const known = loaded.get(owner);
    if (known?.version === version) return used(owner, known);
    const reading = loading.get(owner) ?? load(db, owner, version);
    loading.set(owner, reading);
    reading.then(
      () => loading.delete(owner),
      () => loading.delete(owner),
    );
    return known && known.size > QUICK ? known : reading;
  }

  function used(owner: string, bank: Loaded): Loaded {
    loaded.delete(owner);
    loaded.set(owner, bank);
    return bank;
  }

  async function load(db: Queries, owner: string, version: string): Promise<Loaded> {
    const name = `${owner} ${next++}`;
    let size = 0;
    for (let after: string | null = null; ;) {
      const rows = await selectIndexRows(db, owner, after, PIECE);
      await ask({ type: 'rows', bank: name, rows });
      size += rows.length;
      after = rows.at(-1)?.id ?? null;
      if (rows.length < PIECE) break;
    }
    await ask({ type: 'history', bank: name, history: await selectHistory(db, owner, MOST_HISTORY), language: 'en' });
    // Now, so that nobody waits for it later.
    if (size > QUICK) {
      await ask({ type: 'find', bank: name, query: 'a', most: 1, fitting: null });
      await ask({ type: 'suggest', bank: name, language: 'en', passage: { before: '', passage: '', after: '' } });
    }
    const before = loaded.get(owner);
    if (before) void ask({ type: 'forget', bank: before.name });
    const bank = used(owner, { name, version, size });
    for (const [other, { name: old }] of [...loaded].slice(0, Math.max(0, loaded.size - MOST_BANKS))) {
      loaded.delete(other);
      void ask({ type: 'forget', bank: old });
    }
    return bank;
  }

  async function stop(): Promise<void> {
    clearTimeout(idle);
    const stopped = worker;
    if (!stopped) return;
    giveUp(stopped);
    await stopped.terminate();
  }

  return {
    find: async (db, owner, wanted) => ask({ type: 'find', bank: (await current(db, owner)).name, ...wanted }),
    suggest: async (db, owner, wanted) => ask({ type: 'suggest', bank: (await current(db, owner)).name, ...wanted }),
    alike: async (db, owner, wanted) => ask({ type: 'alike', bank: (await current(db, owner)).name, ...wanted }),
    stop,
  };
}
