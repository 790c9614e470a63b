import { describe, expect, it } from 'vitest';
import { Unreachable } from '../session/api.ts';
import { useDeed } from './use-deed.ts';

describe('what somebody asks for', () => {
  it('is busy until it is done, and says why where it is not', async () => {
    const { busy, problem, attempt } = useDeed();
    let finish = (): void => undefined;
    const done = attempt(() => new Promise<void>((resolve) => (finish = resolve)));
    expect(busy.value).toBe(true);
    finish();
    expect([await done, busy.value, problem.value]).toEqual([true, false, undefined]);
    expect(await attempt(() => Promise.reject(new Unreachable()))).toBe(false);
    expect([busy.value, problem.value]).toEqual([false, new Unreachable().message]);
    // The next try begins without the sentence of the last.
    const again = attempt(() => Promise.resolve());
    expect(problem.value).toBeUndefined();
    await again;
  });
});
