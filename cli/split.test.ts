import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { split } from './split.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'vivid-split-'));
});
afterAll(() => rm(folder, { recursive: true }));

const cutsOf = async (take: object): Promise<object> => {
  const file = path.join(folder, 'take.json');
  await writeFile(file, JSON.stringify(take));
  return split(file);
};
const take = {
  duration: 20,
  pauses: [
    { start: 4, end: 4.4 },
    { start: 9, end: 10.2 },
  ],
  selections: [{ at: 0.2 }, { at: 10.5 }],
};

describe('vivid split', () => {
  it('prints a cut for each selection but the first, with its doubt', async () => {
    expect(await cutsOf(take)).toEqual({ cuts: [{ at: 9.6, doubt: expect.closeTo(0, 2) as number }] });
    expect(await cutsOf({ ...take, selections: [{ at: 3 }] })).toEqual({ cuts: [] });
  });

  it.each([
    ['no duration', { ...take, duration: undefined }, 'duration'],
    ['a time before the take', { ...take, selections: [{ at: -1 }] }, 'selections'],
    ['a pause that ends before it begins', { ...take, pauses: [{ start: 3, end: 2 }] }, 'ends before it begins'],
    ['a word without a time', { ...take, words: [{ word: 'tide' }] }, 'words'],
  ])('refuses %s', async (_, one, message) => {
    await expect(cutsOf(one)).rejects.toThrow(message);
  });
});
