import { describe, expect, it, vi } from 'vitest';
import type { ProblemError } from '../errors.ts';
import { backOff, wrongTries, type Asker, type Clock } from './tries.ts';

const SCHOOL = '10.0.0.1';
const asker = (account: string | null, more: Partial<Asker> = {}): Asker => ({ account, address: SCHOOL, ...more });

describe('who tries passwords', () => {
  let now = 0;
  const clock: Clock = {
    now: () => now,
    pause(time) {
      now += time;
      return Promise.resolve();
    },
  };

  const tries = () => {
    const { attempt } = wrongTries(clock);
    /** Seconds until the answer, and what it was: for how long it is too soon where it is. */
    return async (who: Asker, right: boolean): Promise<{ seconds: number; answer: boolean | number }> => {
      const begun = now;
      const answer = await attempt(
        who,
        () => Promise.resolve(right),
        (one) => one,
      ).catch((error: unknown) => (error as ProblemError).retryAfter!);
      return { seconds: (now - begun) / 1000, answer };
    };
  };

  it('waits twice as long each time, up to a quarter of an hour', () => {
    expect([4, 5, 6, 7, 15, 1000].map((wrong) => backOff(wrong, 5, 900))).toEqual([0, 1, 2, 4, 900, 900]);
  });

  it('may be wrong a few times, and then has to wait, even with the right one', async () => {
    const attempt = tries();
    for (let times = 0; times < 5; times++) expect((await attempt(asker('a'), false)).answer).toBe(false);
    expect(await attempt(asker('a'), true)).toMatchObject({ answer: 1 });
    now += 1000;
    expect((await attempt(asker('a'), true)).answer).toBe(true);
    // And begins anew.
    expect((await attempt(asker('a'), false)).answer).toBe(false);
  });

  it('keeps nobody else out behind one address, and only gets wrong answers later', async () => {
    const attempt = tries();
    for (let times = 0; times < 150; times++) await attempt(asker(`guessed ${times}`), false);
    expect(await attempt(asker('somebody'), true)).toMatchObject({ answer: true, seconds: 0 });
    expect(await attempt(asker('mistyped'), false)).toMatchObject({ answer: false, seconds: 10 });
    expect(await attempt(asker('elsewhere', { address: '10.0.0.2' }), false)).toMatchObject({ seconds: 0 });
    // Codes cannot be guessed, so that a right one is always taken.
    expect(await attempt(asker(null), true)).toMatchObject({ answer: true, seconds: 0 });
  });

  it('is let in with the right one from a browser that knows the account, whatever others try', async () => {
    const attempt = tries();
    for (let n = 0; n < 60; n++) await attempt(asker('victim', { address: `10.1.0.${n}` }), false);
    expect((await attempt(asker('victim', { address: '10.2.0.1' }), true)).answer).toBeGreaterThan(0);
    expect(await attempt(asker('victim', { browser: 'hers' }), true)).toMatchObject({ answer: true, seconds: 0 });
  });

  it('in that browser guesses slowly, one after the other, and is never refused', async () => {
    const attempt = tries();
    const mine = asker('victim', { browser: 'hers' });
    const waits: number[] = [];
    for (let times = 0; times < 10; times++) waits.push((await attempt(mine, false)).seconds);
    expect(waits).toEqual([0, 0, 0, 0, 1, 2, 4, 8, 10, 10]);
    expect(await attempt(mine, true)).toMatchObject({ answer: true, seconds: 0 });
  });

  it('cannot get around waiting by trying many at once', async () => {
    const { attempt } = wrongTries(clock);
    const looked = vi.fn(() => Promise.resolve(false));
    const all = Array.from({ length: 50 }, () => attempt(asker('a'), looked, Boolean).catch(() => undefined));
    await Promise.all(all);
    expect(looked).toHaveBeenCalledTimes(5);
  });
});
