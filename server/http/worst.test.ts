import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Endpoint } from '../../contract/endpoint.ts';
import { allEndpoints } from '../testing/contract.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { oneOfEach } from '../testing/one-of-each.ts';
import { startTestSchool, type TestSchool } from '../testing/school.ts';
import { askWithFile, askWithText, longestText, REPEATED } from '../testing/worst.ts';

/** Enough that what takes the square of it does not end within this test, and what is linear takes a moment. */
const BYTES = 200_000;
/** The whole of it, with every repetition and a megabyte, is `vivid bench foreign`. */
const SOME = ['<', 'a "'];
const SOME_FILES = ['quoted.csv', 'a.zip'];
/** A field that takes fewer letters cannot take long. */
const LONG = 10_000;
const NOT_FOR_THEM = new Set([403, 404]);

describe('text that is built to take long', () => {
  let test: TestDatabase;
  let school: TestSchool;
  let endpoints: Endpoint[];
  let ids: Record<string, string>;
  beforeAll(async () => {
    test = await bodies[0]!.open();
    school = await startTestSchool(test.db);
    ids = await oneOfEach(test.db, school);
    endpoints = await allEndpoints();
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  it('is answered by every endpoint that takes text', async () => {
    const taking = endpoints.filter((endpoint) => endpoint.body && longestText(endpoint) >= 1000);
    expect(taking.length).toBeGreaterThan(20);
    const broken: unknown[] = [];
    for (const endpoint of taking) {
      const ask = { client: school.as.teacher, endpoint, ids, bytes: BYTES };
      const { status } = await askWithText({ ...ask, what: 'a ', bytes: 100 });
      const client = NOT_FOR_THEM.has(status) ? school.as.author : school.as.teacher;
      for (const what of longestText(endpoint) < LONG ? SOME.slice(0, 1) : SOME) {
        const asked = await askWithText({ ...ask, client, what });
        if (asked.status >= 500) broken.push(asked);
      }
    }
    expect(broken).toEqual([]);
  }, 120_000);

  it('is answered by every endpoint that takes files', async () => {
    const taking = endpoints.filter(({ upload }) => upload);
    expect(taking.length).toBeGreaterThan(5);
    const broken: unknown[] = [];
    for (const endpoint of taking)
      for (const [at, name] of SOME_FILES.entries()) {
        const what = REPEATED[(at * 7) % REPEATED.length]!;
        const asked = await askWithFile({ client: school.as.teacher, endpoint, ids, what, bytes: BYTES }, name);
        if (asked.status >= 500) broken.push(asked);
      }
    expect(broken).toEqual([]);
  }, 120_000);
});
