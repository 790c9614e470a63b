import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { passageAnchor } from '#core/anchor';
import type { OwnWork } from '../../contract/assignments.ts';
import type { EarlierRemark, Work } from '../../contract/submissions.ts';
import type { Waiting } from '../../contract/waiting.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { spoken, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

const FIRST = `The tide turns twice a day, and the birds know it.

I counted forty of them on the wet mud at dawn.

Nobody has told me why they leave before it turns.
`;
const SECOND = `I counted more than forty of them on the wet mud at dawn.

The tide turns twice a day, and the birds know it.
`;

describe.each(bodies)('versions on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  const handIn = async (...texts: string[]): Promise<string> => {
    const answer = await school.as.author.send('POST', `/assignments/${school.assignment}/submissions`, {
      file: Buffer.from(texts[0]!),
      fileName: 'shore.txt',
    });
    expect(answer.status).toBe(200);
    return (answer.json as { submission: string }).submission;
  };
  const work = async (who: 'teacher' | 'author', id: string): Promise<Work> =>
    (await school.as[who].send('GET', `/submissions/${id}`)).json as Work;
  const say = async (submission: string, words: string): Promise<string> => {
    const { text } = (await work('teacher', submission)).folio;
    const start = text.indexOf(words);
    const remark = randomUUID();
    const body = { anchor: passageAnchor(text, start, start + words.length), kind: 'next', said: spoken(remark) };
    const answer = await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${remark}`, {
      body,
      file: await voice(),
    });
    expect(answer.status).toBe(200);
    return remark;
  };
  const earlier = async (who: 'teacher' | 'author', id: string): Promise<EarlierRemark[]> =>
    (await school.as[who].send('GET', `/submissions/${id}/earlier`)).json as EarlierRemark[];
  const own = async (): Promise<OwnWork['versions']> =>
    ((await school.as.author.send('GET', '/own-work')).json as OwnWork[])[0]!.versions;

  let first: string;
  let second: string;
  let remarks: string[];
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    first = await handIn(FIRST);
    remarks = [
      await say(first, 'The tide turns twice a day, and the birds know it.'),
      await say(first, 'I counted forty of them'),
      await say(first, 'Nobody has told me why they leave before it turns.'),
    ];
    second = await handIn(SECOND);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  it('has every remark on the first at its place in the second, or says that it is lost', async () => {
    const found = await earlier('teacher', second);
    expect(found.map(({ remark }) => remark.id)).toEqual(remarks);
    expect(found.map(({ status }) => status)).toEqual(['moved', 'changed', 'lost']);
    expect(found[1]).toMatchObject({
      version: 1,
      submission: first,
      placed: false,
      anchor: { type: 'passage', quote: { exact: 'I counted more than forty of them' } },
    });
    expect(found[2]!.anchor).toBeNull();
    expect(await earlier('teacher', first)).toEqual([]);
  });

  it('tells the student nothing of remarks that were not returned', async () => {
    expect(await earlier('author', second)).toEqual([]);
    await school.as.teacher.send('PUT', `/submissions/${first}/returned`, { body: { returned: true } });
    expect((await earlier('author', second)).map(({ status }) => status)).toEqual(['moved', 'changed', 'lost']);
    expect((await school.as.classmate.send('GET', `/submissions/${second}/earlier`)).status).toBe(404);
  });

  it('keeps earlier versions to be read, with their remarks', async () => {
    const { versions, version } = await work('author', first);
    expect([version, versions.map((one) => one.version)]).toEqual([1, [2, 1]]);
    expect((await school.as.author.send('GET', `/submissions/${first}/feedback`)).status).toBe(200);
  });

  it('lets the teacher put a lost remark where it belongs, and take it away again', async () => {
    const { text } = (await work('teacher', second)).folio;
    const anchor = passageAnchor(text, text.indexOf('the birds'), text.indexOf('the birds') + 9);
    const path = `/submissions/${second}/earlier/${remarks[2]!}`;
    const put = await school.as.teacher.send('PUT', path, { body: { anchor } });
    expect(put.json).toMatchObject({ status: 'changed', placed: true, anchor });
    expect((await earlier('author', second))[2]).toMatchObject({ placed: true });
    const bad = await school.as.teacher.send('PUT', path, { body: { anchor: { ...anchor, start: 0, end: 9 } } });
    expect([bad.status, (bad.json as { title: string }).title]).toEqual([422, 'Passage not found']);
    const taken = await school.as.teacher.send('PUT', path, { body: { anchor: null } });
    expect(taken.json).toMatchObject({ status: 'lost', placed: true, anchor: null });
    expect((await school.as.author.send('PUT', path, { body: { anchor } })).status).toBe(404);
    const unknown = await school.as.teacher.send('PUT', `/submissions/${second}/earlier/${randomUUID()}`, {
      body: { anchor: null },
    });
    expect(unknown.status).toBe(404);
  });

  it('follows from version to version, beginning where a teacher put it', async () => {
    const { text } = (await work('teacher', second)).folio;
    const anchor = passageAnchor(text, text.indexOf('the birds'), text.indexOf('the birds') + 9);
    await school.as.teacher.send('PUT', `/submissions/${second}/earlier/${remarks[2]!}`, { body: { anchor } });
    const third = await handIn(`In short: ${SECOND}`);
    expect((await earlier('teacher', third)).map(({ status, version }) => [status, version])).toEqual([
      ['same', 1],
      ['same', 1],
      ['same', 1],
    ]);
  });

  it('can be withdrawn until a teacher opens it, and be brought back', async () => {
    const fourth = await handIn('Only a try, and I do not want it to count.');
    const withdraw = (withdrawn: boolean, who: 'author' | 'teacher' = 'author') =>
      school.as[who].send('PUT', `/submissions/${fourth}/withdrawn`, { body: { withdrawn } });
    expect((await withdraw(true, 'teacher')).status).toBe(403);
    expect((await withdraw(true)).status).toBe(200);
    expect((await own()).find(({ submission }) => submission === fourth)!.withdrawnAt).not.toBeNull();
    expect((await school.as.teacher.send('GET', `/submissions/${fourth}`)).status).toBe(404);
    const { items } = (await school.as.teacher.send('POST', '/waiting', { body: {} })).json as Waiting;
    expect(items.map(({ work }) => work!.version)).toEqual([3]);
    expect((await work('author', second)).versions.map(({ version }) => version)).toEqual([3, 2, 1]);

    expect((await withdraw(false)).status).toBe(200);
    expect((await own()).find(({ submission }) => submission === fourth)).toMatchObject({
      canWithdraw: true,
      withdrawnAt: null,
    });
    await work('teacher', fourth);
    const late = await withdraw(true);
    expect([late.status, (late.json as { title: string }).title]).toEqual([409, 'Already opened']);
    expect((await own()).find(({ submission }) => submission === fourth)!.canWithdraw).toBe(false);
  });

  it('goes for good 30 days after it was withdrawn', async () => {
    const { purgeWithdrawn } = await import('../submissions/queries.ts');
    const gone = await handIn('This goes.');
    await school.as.author.send('PUT', `/submissions/${gone}/withdrawn`, { body: { withdrawn: true } });
    await purgeWithdrawn(test.db);
    expect((await own()).some(({ submission }) => submission === gone)).toBe(true);
    await test.db.query("update submissions set withdrawn_at = now() - interval '31 days' where id = $1", [gone]);
    await purgeWithdrawn(test.db);
    expect((await own()).some(({ submission }) => submission === gone)).toBe(false);
  });
});
