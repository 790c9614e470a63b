import { setTimeout as pause } from 'node:timers/promises';
import { problems } from '../errors.ts';

/** Wrong passwords that cost nothing. */
const FREE = { pair: 5, account: 40, address: 40 };
/** Seconds. */
const LONGEST = { pair: 15 * 60, account: 60, answer: 10 };
/** Seconds after which a wrong one is forgotten. */
const FORGOTTEN = 30 * 60;
const MOST_KEPT = 50_000;

/** Seconds to wait after so many wrong ones: none at first, then one, and each time twice as many. */
export const backOff = (wrong: number, free: number, longest: number): number =>
  wrong < free ? 0 : Math.min(longest, 2 ** Math.min(30, wrong - free));

/** What passes time; milliseconds. */
export interface Clock {
  now(): number;
  pause(time: number): Promise<unknown>;
}

/** Counts what was wrong, by key. */
class Wrong {
  constructor(readonly clock: Clock) {}

  readonly #kept = new Map<string, { times: number; last: number }>();

  of(key: string): { times: number; ago: number } {
    const found = this.#kept.get(key);
    const ago = found ? (this.clock.now() - found.last) / 1000 : Infinity;
    return found && ago < FORGOTTEN ? { times: found.times, ago } : { times: 0, ago: Infinity };
  }

  count(key: string): number {
    const times = this.of(key).times + 1;
    this.#kept.delete(key);
    this.#kept.set(key, { times, last: this.clock.now() });
    // The oldest goes first, so that nobody fills the memory.
    if (this.#kept.size > MOST_KEPT) this.#kept.delete(this.#kept.keys().next().value!);
    return times;
  }

  forget(key: string): void {
    this.#kept.delete(key);
  }
}

export interface Asker {
  /** What is guessed at; null where wrong ones only slow their address, as with codes that nobody can guess. */
  account: string | null;
  address: string;
  /** A browser in which the account was signed in before, or is now. */
  browser?: string | undefined;
}

/**
 * Whoever guesses is slowed down, and nobody else is kept out: an account is tried again from one address after ever longer waits; an
 * address, which a whole school may share, only gets its wrong answers later; and in a browser that the account knows a right password
 * always counts.
 */
export interface Tries {
  /**
   * Tries something.
   * @param isRight whether what it answers was right
   * @throws ProblemError where it is too soon after a wrong one
   */
  attempt<T>(asker: Asker, tried: () => Promise<T>, isRight: (answer: T) => boolean): Promise<T>;
}

export function wrongTries(clock: Clock = { now: Date.now, pause }): Tries {
  const [pairs, accounts, addresses] = [new Wrong(clock), new Wrong(clock), new Wrong(clock)];
  const turns = new Map<string, Promise<unknown>>();

  /** One after the other for each key, so that many at once are no way around waiting. */
  async function inTurn<T>(key: string, job: () => Promise<T>): Promise<T> {
    const before = turns.get(key) ?? Promise.resolve();
    const mine = before.then(job, job);
    const settled = mine.catch(() => undefined);
    turns.set(key, settled);
    try {
      return await mine;
    } finally {
      if (turns.get(key) === settled) turns.delete(key);
    }
  }

  function refuseTooSoon(pair: string, account: string): void {
    const waits = [
      { ...pairs.of(pair), free: FREE.pair, longest: LONGEST.pair },
      { ...accounts.of(account), free: FREE.account, longest: LONGEST.account },
    ].map(({ times, ago, free, longest }) => backOff(times, free, longest) - ago);
    const wait = Math.max(...waits);
    if (wait > 0) throw problems.tooManyTries(Math.ceil(wait));
  }

  return {
    attempt({ account, address, browser }, tried, isRight) {
      const pair = browser ?? `${account ?? ''} ${address}`;
      const known = browser !== undefined;
      const job = async () => {
        if (!known && account !== null) refuseTooSoon(pair, account);
        const answer = await tried();
        if (isRight(answer)) {
          pairs.forget(pair);
          return answer;
        }
        if (!known && account !== null) accounts.count(account);
        const [here, there] = [pairs.count(pair), addresses.count(address)];
        const slow = known ? backOff(here, FREE.pair, LONGEST.answer) : 0;
        await clock.pause(Math.max(slow, slownessOf(there)) * 1000);
        return answer;
      };
      return known || account !== null ? inTurn(pair, job) : job();
    },
  };
}

/** Seconds by which the wrong answers of an address come later. */
const slownessOf = (wrong: number): number => Math.min(LONGEST.answer, Math.max(0, wrong - FREE.address) / 10);
