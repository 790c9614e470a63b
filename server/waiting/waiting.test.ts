import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Waiting } from '../../contract/waiting.ts';
import { enrol } from '../school/people.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { essay, handIn, savedAgain, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('the queue on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  /** The longest waiting first: a reply, then two works. */
  let waiting: string[];

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    const answered = await handIn(school);
    const remark = await sayRemark(school, answered);
    await school.as.teacher.send('PUT', `/submissions/${answered}/returned`, { body: { returned: true } });
    await school.as.author.send('PUT', `/remarks/${remark}/replies/${randomUUID()}`, {
      body: { text: 'I see.', recording: null },
    });
    const again = await handIn(school);
    const fresh = await school.as.classmate.send('POST', `/assignments/${school.assignment}/submissions`, {
      file: savedAgain(await essay()),
      fileName: 'essay.docx',
    });
    waiting = [answered, again, (fresh.json as { submission: string }).submission];
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const ask = async (body: object, who: 'teacher' | 'author' | 'colleague' = 'teacher'): Promise<Waiting> =>
    (await school.as[who].send('POST', '/waiting', { body })).json as Waiting;
  const after = async (submission: string, filter: object = {}): Promise<unknown> =>
    (
      (await school.as.teacher.send('POST', '/waiting/next', { body: { after: submission, ...filter } })).json as {
        next: unknown;
      }
    ).next;

  it('answers no more than was asked for, and counts all', async () => {
    const { items, ...counts } = await ask({ most: 2 });
    expect(items.map(({ submission, kind }) => [submission, kind])).toEqual([
      [waiting[0], 'reply'],
      [waiting[1], 'back'],
    ]);
    expect(counts).toMatchObject({ shown: 3, hiddenByCourse: 0, hiddenByKind: 0 });
  });

  it('tells how many remarks on the version before are dealt with; what is said about these waits for nobody', async () => {
    const [before] = waiting;
    const { remarks } = (await school.as.author.send('GET', `/submissions/${before}/feedback`)).json as {
      remarks: { id: string; dealtAt: string | null }[];
    };
    const deal = (dealt: boolean, who: 'author' | 'classmate' | 'teacher' = 'author') =>
      school.as[who].send('PUT', `/remarks/${remarks[0]!.id}/dealt`, { body: { dealt } });
    const chips = async () => (await ask({})).items.map(({ kind, work }) => [kind, work?.dealt ?? null]);
    expect(await chips()).toEqual([
      ['reply', null],
      ['back', { done: 0, of: 1 }],
      ['new', null],
    ]);
    expect([(await deal(true, 'classmate')).status, (await deal(true, 'teacher')).status]).toEqual([404, 403]);
    expect((await deal(true)).json).toMatchObject({ dealtAt: expect.any(String) as string });
    expect(await chips()).toEqual([
      ['back', { done: 1, of: 1 }],
      ['new', null],
    ]);
    expect((await deal(false)).json).toMatchObject({ dealtAt: null });
  });

  it('counts what a filter hides', async () => {
    expect(await ask({ kinds: ['new'] })).toMatchObject({
      items: [{ submission: waiting[2], work: { version: 1, state: 'waiting' }, answer: null }],
      ...{ shown: 1, hiddenByKind: 2, hiddenByCourse: 0 },
    });
    expect(await ask({ course: randomUUID() })).toMatchObject({ items: [], shown: 0, hiddenByCourse: 3 });
  });

  it('leads on, round to the first, and to a reply by its remark', async () => {
    expect(await after(waiting[1]!)).toEqual({ submission: waiting[2], remark: null });
    expect(await after(waiting[2]!)).toEqual({ submission: waiting[0], remark: expect.any(String) as string });
    expect(await after(waiting[2]!, { kinds: ['new'] })).toBeNull();
  });

  it('is of the courses that one teaches', async () => {
    for (const who of ['author', 'colleague'] as const)
      expect(await ask({}, who)).toMatchObject({ items: [], shown: 0, hiddenByCourse: 0 });
    await enrol(test.db, school.course, school.ids.colleague, 'teacher');
    expect((await ask({}, 'colleague')).shown).toBe(3);
  });

  it.each([{ most: 0 }, { most: 100_000 }, { kinds: ['all'] }, { course: 'shore' }])('refuses %o', async (body) => {
    expect((await school.as.teacher.send('POST', '/waiting', { body })).status).toBe(400);
  });
});
