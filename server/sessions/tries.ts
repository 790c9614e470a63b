import { MemoryStore, type Options } from 'express-rate-limit';
import { problems } from '../errors.ts';

const WINDOW_MILLISECONDS = 15 * 60_000;
/** Wrong passwords within that time after which no more are looked at. A whole school may be behind one address. */
const MOST = { login: 10, address: 100 };

type Asker = Record<keyof typeof MOST, string>;
const KEYS = Object.keys(MOST) as (keyof typeof MOST)[];

/** Counts wrong passwords, for each login and for each address that they come from; right ones cost nothing. */
export interface WrongPasswords {
  /** @throws ProblemError where there were too many */
  refuseTooMany(asker: Asker): Promise<void>;
  count(asker: Asker): Promise<void>;
}

export function wrongPasswords(): WrongPasswords {
  const stores = { login: new MemoryStore(), address: new MemoryStore() };
  for (const key of KEYS) stores[key].init({ windowMs: WINDOW_MILLISECONDS } as Options);
  return {
    async refuseTooMany(asker) {
      for (const key of KEYS) {
        const wrong = (await stores[key].get(asker[key]))?.totalHits ?? 0;
        if (wrong >= MOST[key]) throw problems.tooManyTries();
      }
    },
    async count(asker) {
      for (const key of KEYS) await stores[key].increment(asker[key]);
    },
  };
}
