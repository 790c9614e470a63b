import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { grade } from './grade.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'vivid-grade-'));
});
afterAll(() => rm(folder, { recursive: true }));

const graded = async (one: object): Promise<object> => {
  const file = path.join(folder, 'case.json');
  await writeFile(file, JSON.stringify(one));
  return grade(file);
};
const parts = [
  { title: 'Claim', possible: 6, points: 4 },
  { title: 'Support', possible: '9', points: '7.5' },
];

describe('vivid grade', () => {
  it('prints the result and its arithmetic', async () => {
    expect(await graded({ parts, levels: [{ name: 'Secure', from: 70 }], decimals: 1 })).toEqual({
      ...{ points: 11.5, possible: 15, percent: 76.7, level: 'Secure' },
      explanation: '4 + 7.5 = 11.5 of 15, that is 76.7 %: Secure.',
    });
  });

  it('reads numbers as they are written', async () => {
    const tenths = [0.1, 0.2].map((points) => ({ title: 'T', possible: 0.3, points }));
    expect(await graded({ parts: tenths })).toMatchObject({ points: 0.3, possible: 0.6, percent: 50 });
  });

  it('counts lateness from the end of the grace', async () => {
    const late = { minutes: 90, grace: 30, unit: 'hour', percent: 10, of: 'earned' };
    expect(await graded({ parts, late })).toMatchObject({ points: 10.35, percent: 69 });
  });

  it.each([
    ['text in a number field', { parts: [{ title: 'A', possible: 'ten', points: 1 }] }, 'is no decimal number'],
    ['101 of 100', { parts: [{ title: 'A', possible: 100, points: 101 }] }, 'has 101 points of 100'],
    ['fewer than none', { parts: [{ title: 'A', possible: 100, points: -1 }] }, 'fewer than 0'],
    ['what is no number', { parts: [{ title: 'A', possible: null, points: 1 }] }, 'possible'],
    ['a field that is not known', { parts: [], points: 5 }, 'points'],
    ['nothing to score', { parts: [] }, 'no possible points'],
    ['an override without a reason', { parts, override: { points: 3, reason: ' ' } }, 'reason'],
  ])('refuses %s', async (_, one, message) => {
    await expect(graded(one)).rejects.toThrow(message);
  });
});
