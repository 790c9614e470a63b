import { mkdtemp, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { agreement, statistics } from './numbers.ts';

let folder: string;
beforeAll(async () => {
  folder = await mkdtemp(path.join(tmpdir(), 'vivid-numbers-'));
});
afterAll(() => rm(folder, { recursive: true }));

async function written(text: string): Promise<string> {
  const file = path.join(folder, 'numbers.csv');
  await writeFile(file, text);
  return file;
}

describe('vivid statistics', () => {
  it('reads a number a line', async () => {
    expect(await statistics(await written('\ufeff2\r\n4\r\n\r\n 4 \n5.5\n+1e1\n'))).toEqual({
      ...{ n: 5, mean: 5.1, median: 4, q1: 4, q3: 5.5, min: 2, max: 10 },
      sd: expect.closeTo(3.0083, 4) as number,
    });
  });

  it.each(['four', '1,5', '0x10', 'Infinity', '1 2', '1e999'])(
    'refuses “%s” and says where it stands',
    async (line) => {
      await expect(statistics(await written(`1\n${line}\n`))).rejects.toThrow(`Line 2: “${line}” is no number.`);
    },
  );

  it('has nothing to say about nothing', async () => {
    expect(await statistics(await written('\n'))).toMatchObject({ n: 0, mean: null, sd: null });
  });
});

describe('vivid agreement', () => {
  it('reads a row a unit and a column a rater, empty where one has not rated', async () => {
    expect(await agreement(await written('1,1\n2,3\n,2\n4,4\n'))).toMatchObject({
      ...{ units: 4, raters: 2, adjacent: 100 },
      exact: expect.closeTo(66.667, 3) as number,
    });
  });

  it('passes over a row of names, and takes semicolons and tabs', async () => {
    const expected = { units: 2, raters: 2, exact: 100 };
    expect(await agreement(await written('\ufeffTamsin;Ruari\n1;1\n2;2\n'))).toMatchObject(expected);
    expect(await agreement(await written('1\t1\n2\t2\n'))).toMatchObject(expected);
  });

  it('refuses what is no number and says where it stands', async () => {
    await expect(agreement(await written('a,b\n1,2\n3,x\n'))).rejects.toThrow('Line 3: “x” is no number.');
  });
});
