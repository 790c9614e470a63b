import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Receipt } from '../../contract/submissions.ts';
import { MOST_TYPED, type Typed } from '../../contract/typed.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('typed works on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  type Who = 'author' | 'classmate' | 'teacher';
  const path = (): string => `/assignments/${school.assignment}/typed`;
  const read = async (who: Who = 'author'): Promise<Typed> => (await school.as[who].send('GET', path())).json as Typed;
  const keep = (html: string, over: string | null, who: Who = 'author') =>
    school.as[who].send('PUT', path(), { body: { html, over } });

  it('are kept while they are typed, for their student alone', async () => {
    expect(await read()).toEqual({ html: '', changedAt: null });
    const { changedAt } = (await keep('<p>At low water</p>', null)).json as Typed;
    expect(await read()).toEqual({ html: '<p>At low water</p>', changedAt });
    expect(await read('classmate')).toEqual({ html: '', changedAt: null });
    expect((await school.as.teacher.send('GET', path())).status).toBe(403);
    expect((await keep('<p>Mine now</p>', null, 'teacher')).status).toBe(403);
  });

  it('of two windows neither undoes the other: the second is told what stands there', async () => {
    const before = await read();
    const first = (await keep('<p>First window</p>', before.changedAt)).json as Typed;
    const second = await keep('<p>Second window</p>', before.changedAt);
    expect([second.status, second.json]).toMatchObject([409, { now: { ...first, html: '<p>First window</p>' } }]);
    expect(await read()).toMatchObject({ html: '<p>First window</p>' });
    expect((await keep('<p>Second window</p>', first.changedAt)).status).toBe(200);
    expect(await read()).toMatchObject({ html: '<p>Second window</p>' });
  });

  it('are the same when they are sent once more after an answer that never came', async () => {
    const before = await read();
    await keep('<p>Sent twice</p>', before.changedAt);
    expect((await keep('<p>Sent twice</p>', before.changedAt)).status).toBe(200);
  });

  it('are refused where they are too long, and what was there stays', async () => {
    const before = await read();
    const refused = await keep('a'.repeat(MOST_TYPED + 1), before.changedAt);
    expect([refused.status, refused.text]).toEqual([400, expect.stringContaining('too long to be typed here')]);
    expect(await read()).toEqual(before);
  });

  it('stay to be revised after something was handed in; its student has a receipt, and nobody else', async () => {
    const before = await read();
    const submission = await handIn(school);
    expect(await read()).toEqual(before);
    const receipt = (await school.as.author.send('GET', `/submissions/${submission}/receipt`)).json as Receipt;
    expect(receipt).toMatchObject({
      submission,
      version: 1,
      files: [{ sha256: expect.stringMatching(/^[0-9a-f]{64}$/) }],
    });
    expect(Math.abs(Date.parse(receipt.handedInAt) - Date.now())).toBeLessThan(60_000);
    for (const [who, status] of [
      ['teacher', 403],
      ['classmate', 404],
    ] as const)
      expect((await school.as[who].send('GET', `/submissions/${submission}/receipt`)).status).toBe(status);
  });
});
