import type { Suggestion } from '#core/bank';
import type { Queries } from '../db/database.ts';
import { askedThread } from '../threads/asked-thread.ts';
import type { BankTask } from './bank-worker.ts';
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

/** A bank as the thread has it; `size` is 0 until it is read. */
interface Loaded {
  name: string;
  version: string;
  size: number;
}

export function bankThread(): BankThread {
  const loaded = new Map<string, Loaded>();
  const loading = new Map<string, Promise<Loaded>>();
  let next = 0;
  const { ask, stop } = askedThread<BankTask, string>('bank', {
    refused: (message) => new Error(message),
    silent: (why) => new Error(why === 'ended' ? 'The thread of the remark bank ended.' : 'The remark bank hangs.'),
    forgotten: () => loaded.clear(),
  });

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

  return {
    find: async (db, owner, wanted) => ask({ type: 'find', bank: (await current(db, owner)).name, ...wanted }),
    suggest: async (db, owner, wanted) => ask({ type: 'suggest', bank: (await current(db, owner)).name, ...wanted }),
    alike: async (db, owner, wanted) => ask({ type: 'alike', bank: (await current(db, owner)).name, ...wanted }),
    stop,
  };
}
