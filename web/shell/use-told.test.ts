import { describe, expect, it } from 'vitest';
import { Unreachable } from '../session/api.ts';
import { useTold } from './use-told.ts';

describe('what became of something', () => {
  it('is told when it is done, and when it is not', async () => {
    const { busy, told, attempt } = useTold();
    const saving = attempt(async () => 'Saved.');
    expect([busy.value, told.value]).toEqual([true, undefined]);
    await saving;
    expect([busy.value, told.value]).toEqual([false, { text: 'Saved.' }]);
    await attempt(() => Promise.reject(new Unreachable()));
    expect([busy.value, told.value]).toEqual([false, { text: new Unreachable().message, wrong: true }]);
  });
});
