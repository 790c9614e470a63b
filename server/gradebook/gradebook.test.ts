import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type {
  CellChange,
  CellStory,
  Gradebook,
  GradeCell,
  OwnGrades,
  StudentReport,
} from '../../contract/gradebook.ts';
import { PLAIN_MARKING, PLAIN_SCHEME } from '#core/grading';
import { returnPlanned } from '../returning/planned.ts';
import { enrol } from '../school/people.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('the gradebook, on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  /** Without a rubric, out of 10. */
  let quiz: string;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });
  beforeEach(async () => {
    const made = await school.as.teacher.send('POST', `/courses/${school.course}/assignments`, {
      body: { title: 'Quiz' },
    });
    quiz = (made.json as { id: string }).id;
    await school.as.teacher.send('PATCH', `/assignments/${quiz}`, {
      body: { open: true, marking: { ...PLAIN_MARKING, possible: 1000 } },
    });
  });

  const read = async (): Promise<Gradebook> =>
    (await school.as.teacher.send('GET', `/courses/${school.course}/gradebook`)).json as Gradebook;
  async function cell(student: string, assignment = quiz): Promise<GradeCell | null> {
    const { columns, rows } = await read();
    return rows.find(({ id }) => id === student)!.cells[columns.findIndex(({ id }) => id === assignment)]!;
  }
  const change = (changes: CellChange[], why = '', who: 'teacher' | 'author' | 'colleague' | 'nobody' = 'teacher') =>
    school.as[who].send('PUT', `/courses/${school.course}/gradebook`, { body: { changes, why } });
  const typed = (points: number | null, more: Partial<CellChange> = {}): CellChange => ({
    ...{ assignment: quiz, student: school.ids.author, to: { points } },
    ...more,
  });
  const story = async (student = school.ids.author, assignment = quiz): Promise<CellStory> =>
    (await school.as.teacher.send('GET', `/assignments/${assignment}/students/${student}/grade`)).json as CellStory;
  const own = async (assignment = quiz) => {
    const [grades] = (await school.as.author.send('GET', '/own-grades')).json as OwnGrades[];
    return grades!.cells[grades!.columns.findIndex(({ id }) => id === assignment)];
  };

  it('takes a grade without a work; its student sees it once it is returned', async () => {
    const answer = await change([typed(750)]);
    expect(answer.json).toMatchObject({
      cells: [{ cell: { points: 750, possible: 1000, entered: true, returned: false, submission: null } }],
    });
    expect(await own()).toMatchObject({ points: null });
    expect((await change([{ ...typed(0), to: { returned: true } }])).status).toBe(200);
    expect(await own()).toMatchObject({ points: 750, possible: 1000 });
    // What is corrected goes out anew.
    await change([typed(800)], 'counted again');
    expect(await cell(school.ids.author)).toMatchObject({ points: 800, returned: false });
    expect(await own()).toMatchObject({ points: null });
    await change([typed(null)]);
    expect(await cell(school.ids.author)).toBeNull();
  });

  it('keeps who changed what, from what, to what, and why', async () => {
    await change([typed(750)]);
    await change([{ ...typed(0), to: { points: 800, flag: 'incomplete' } }], 'the second page is missing');
    const { explanation, changes } = await story();
    expect(explanation).toBe('Incomplete: held back until the rest is there.');
    expect(changes).toEqual([
      {
        ...{ at: expect.any(String) as string, by: 'The teacher', why: 'the second page is missing' },
        was: { points: 750, flag: null, returned: false },
        now: { points: null, flag: 'incomplete', returned: false },
      },
      {
        ...{ at: expect.any(String) as string, by: 'The teacher', why: '' },
        was: { points: null, flag: null, returned: false },
        now: { points: 750, flag: null, returned: false },
      },
    ]);
    await change([{ ...typed(0), to: { flag: null } }]);
    expect(await cell(school.ids.author)).toMatchObject({ points: 800 });
  });

  it('shows works as they are scored at the desk, and what becomes of them', async () => {
    const submission = await handIn(school);
    const at = async () => cell(school.ids.author, school.assignment);
    expect(await at()).toMatchObject({ submission, state: 'waiting', points: null, late: true });
    await sayRemark(school, submission);
    for (const { id, levels } of school.criteria)
      await school.as.teacher.send('PUT', `/submissions/${submission}/scores/${id}`, {
        body: { score: { level: levels[1] } },
      });
    expect(await at()).toMatchObject({
      state: 'begun',
      points: 500,
      possible: 500,
      spoken: 1,
      heard: 0,
      returned: false,
    });
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: true } });
    expect(await at()).toMatchObject({ state: 'returned', points: 500, grade: 'Pass', returned: true });
    expect((await story(school.ids.author, school.assignment)).changes.map(({ now }) => now)).toEqual([
      { points: 500, flag: null, returned: true },
      { points: 500, flag: null, returned: false },
    ]);

    const refused = await change([typed(100, { assignment: school.assignment })]);
    expect([refused.status, await at()]).toMatchObject([409, { points: 500 }]);
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: false } });
    await change([typed(100, { assignment: school.assignment })], 'a page was copied');
    expect(await at()).toMatchObject({ points: 100, possible: 500, grade: 'Not yet' });
    expect((await story(school.ids.author, school.assignment)).explanation).toBe(
      'Set to 1 of 5: a page was copied, that is 20 %: Not yet.',
    );
    await change([typed(null, { assignment: school.assignment })]);
    expect(await at()).toMatchObject({ points: 500 });
  });

  it('keeps that a work went out by itself, and by nobody', async () => {
    const submission = await handIn(school);
    await change([typed(400, { assignment: school.assignment })]);
    await test.db.query("update submissions set return_at = now() - interval '1 minute' where id = $1", [submission]);
    await returnPlanned(test.db);
    expect((await story(school.ids.author, school.assignment)).changes[0]).toMatchObject({
      ...{ by: null, now: { points: 400, returned: true } },
    });
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: false } });
  });

  it('fills a whole column, or nothing of it', async () => {
    const { author, classmate, stranger } = school.ids;
    const everyone = [author, classmate].map((student) => typed(1000, { student }));
    expect((await change(everyone)).status).toBe(200);
    expect([await cell(author), await cell(classmate)]).toMatchObject([{ points: 1000 }, { points: 1000 }]);

    for (const [wrong, status] of [
      [typed(5, { student: stranger }), 422],
      [typed(5, { assignment: randomUUID() }), 404],
      [typed(5), 422],
      [typed(-1, { student: classmate }), 400],
      [typed(1.5, { student: classmate }), 400],
    ] as const) {
      const answer = await change([typed(200), wrong]);
      expect(answer.status).toBe(status);
    }
    expect([await cell(author), await cell(classmate)]).toMatchObject([{ points: 1000 }, { points: 1000 }]);
  });

  it('does not overwrite what somebody else has put there meanwhile, unless it is the same', async () => {
    const seen = { points: null, flag: null, returned: false };
    await enrol(test.db, school.course, school.ids.colleague, 'teacher');
    await change([typed(700, { was: seen })], '', 'colleague');
    const answer = await change([typed(600, { was: seen })]);
    expect(answer.json).toMatchObject({ status: 409, now: { points: 700, student: school.ids.author } });
    expect((await change([typed(700, { was: seen })])).status).toBe(200);
    expect((await change([typed(600, { was: { ...seen, points: 700 } })])).status).toBe(200);
    expect(await cell(school.ids.author)).toMatchObject({ points: 600 });
    await test.db.query('delete from enrolments where person = $1 and course = $2', [
      school.ids.colleague,
      school.course,
    ]);
  });

  it('takes no more than there is, wherever it is typed, and loses nothing of what stood there', async () => {
    await change([typed(900)]);
    const most = { status: 422, json: { type: 'urn:vivid-margin:grade-refused' } };
    expect(await change([typed(1100)])).toMatchObject(most);
    expect(await cell(school.ids.author)).toMatchObject({ points: 900, possible: 1000 });
    expect((await story()).changes).toHaveLength(1);
    const work = await handIn(school);
    const adjust = (adjustment: object) =>
      school.as.teacher.send('PUT', `/submissions/${work}/adjustment`, { body: { adjustment } });
    expect(await adjust({ extra: null, total: 501, reason: 'More' })).toMatchObject(most);
    expect((await adjust({ extra: 100, total: 500, reason: 'All of it' })).status).toBe(200);
    expect(await change([{ ...typed(501), assignment: school.assignment }])).toMatchObject(most);
    await adjust({ extra: null, total: null, reason: '' });
  });

  it('keeps a grade that was returned while a new version is to be marked, until that is returned', async () => {
    const { author } = school.ids;
    const score = async (work: string, level: number) => {
      for (const { id, levels } of school.criteria)
        await school.as.teacher.send('PUT', `/submissions/${work}/scores/${id}`, {
          body: { score: { level: levels[level] } },
        });
    };
    const give = (work: string) =>
      school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    const first = await handIn(school);
    await score(first, 1);
    await give(first);
    const standing = { points: 500, possible: 500, returned: true };
    expect(await cell(author, school.assignment)).toMatchObject({ ...standing, again: false });
    const next = await handIn(school);
    expect(await cell(author, school.assignment)).toMatchObject({ ...standing, again: true, submission: next });
    expect(await own(school.assignment)).toMatchObject({ points: 500 });
    const csv = await school.as.teacher.send('GET', `/courses/${school.course}/gradebook/csv`);
    expect(csv.text).toMatch(/The author[^\n]*5/u);
    await score(next, 0);
    expect(await cell(author, school.assignment)).toMatchObject(standing);
    expect(await change([{ ...typed(300), assignment: school.assignment }])).toMatchObject({
      json: { type: 'urn:vivid-margin:new-version-waits' },
    });
    await give(next);
    expect(await cell(author, school.assignment)).toMatchObject({ points: 0, returned: true, again: false });
  });

  it('shows a result that extra points would bring below 0 as 0, and its history', async () => {
    const work = await handIn(school);
    for (const { id, levels } of school.criteria)
      await school.as.teacher.send('PUT', `/submissions/${work}/scores/${id}`, {
        body: { score: { level: levels[0] } },
      });
    const answer = await school.as.teacher.send('PUT', `/submissions/${work}/adjustment`, {
      body: { adjustment: { extra: -300, total: null, reason: '' } },
    });
    expect(answer.status).toBe(200);
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    expect(await cell(school.ids.author, school.assignment)).toMatchObject({ points: 0, returned: true });
    const { explanation, changes } = await story(school.ids.author, school.assignment);
    expect([explanation, changes.length > 0]).toEqual([expect.stringContaining('not below 0'), true]);
  });

  it('wants to know first what an assignment is out of', async () => {
    await school.as.teacher.send('PATCH', `/assignments/${quiz}`, { body: { marking: PLAIN_MARKING } });
    const answer = await change([typed(5)]);
    expect([answer.status, answer.text]).toEqual([422, expect.stringContaining('out of') as string]);
    expect((await change([{ ...typed(0), to: { flag: 'missing' } }])).status).toBe(200);
    expect(await cell(school.ids.author)).toMatchObject({ flag: 'missing', points: null });
  });

  it('counts what is missing as nothing', async () => {
    await change([{ ...typed(0), to: { flag: 'missing' } }]);
    expect(await cell(school.ids.author)).toMatchObject({ flag: 'missing', points: 0, possible: 1000 });
  });

  it('tells nothing of a work that is marked without names, and lets nobody grade it by its name', async () => {
    const { assignment } = school;
    await handIn(school);
    await school.as.teacher.send('PATCH', `/assignments/${assignment}`, { body: { anonymous: true } });
    expect(await cell(school.ids.author, assignment)).toMatchObject({
      ...{ nameless: true, submission: null, state: null, points: null },
    });
    expect((await change([typed(100, { assignment })])).status).toBe(409);
    expect((await story(school.ids.author, assignment)).changes).toEqual([]);
    await school.as.teacher.send('PATCH', `/assignments/${assignment}`, { body: { anonymous: false } });
  });

  it('keeps how the course is graded, where it makes sense, and shows it to students or not', async () => {
    const scheme = {
      ...PLAIN_SCHEME,
      count: 'categories',
      categories: [{ name: 'Quizzes', weight: 10000, drop: 1, equal: false }],
    };
    const set = (body: object) => school.as.teacher.send('PUT', `/courses/${school.course}/scheme`, { body });
    expect((await set({ ...scheme, categories: [] })).text).toContain('add up to 0 %');
    expect((await set({ ...scheme, shown: false })).status).toBe(200);
    expect((await read()).scheme).toEqual({ ...scheme, shown: false });
    const shown = async () => ((await school.as.author.send('GET', '/own-grades')).json as OwnGrades[])[0]!.scheme;
    expect(await shown()).toBeNull();
    await set(scheme);
    expect(await shown()).toEqual(scheme);
  });

  it('is nobody’s but its teachers’', async () => {
    for (const who of ['author', 'colleague', 'nobody'] as const) {
      const paths = [`/courses/${school.course}/gradebook`, `/assignments/${quiz}/students/${school.ids.author}/grade`];
      for (const path of paths)
        expect((await school.as[who].send('GET', path)).status).toBe({ author: 403, colleague: 404, nobody: 401 }[who]);
      expect((await change([typed(1)], '', who)).status).toBe({ author: 403, colleague: 404, nobody: 401 }[who]);
    }
    expect((await school.as.stranger.send('GET', '/own-grades')).text).not.toContain(quiz);
  });

  it('makes a report of what a student sees, and of nothing else', async () => {
    const work = await handIn(school);
    const remark = await sayRemark(school, work);
    await school.as.teacher.send('PUT', `/recordings/${remark}/transcript`, {
      body: { language: 'en', text: 'Say it once' },
    });
    await change([typed(750)]);
    const report = (student = school.ids.author, who: 'teacher' | 'author' = 'teacher') =>
      school.as[who].send('GET', `/courses/${school.course}/students/${student}/report`);
    const before = (await report()).json as StudentReport;
    expect(JSON.stringify([before.cells, before.details])).not.toMatch(/:750\b|Say it once/u);

    await change([typed(750, { to: { returned: true } })]);
    for (const { id, levels } of school.criteria)
      await school.as.teacher.send('PUT', `/submissions/${work}/scores/${id}`, {
        body: { score: { level: levels[1] } },
      });
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    const after = (await report()).json as StudentReport;
    const at = (assignment: string): number => after.columns.findIndex(({ id }) => id === assignment);
    expect(after.student).toBe('The author');
    expect(after.cells[at(quiz)]).toMatchObject({ points: 750, possible: 1000 });
    expect(after.details[at(school.assignment)]).toMatchObject({
      explanation: expect.stringContaining('5') as string,
      remarks: [{ words: 'Say it once', spoken: true, heard: false }],
    });
    expect((await report(school.ids.stranger)).status).toBe(404);
    expect((await report(school.ids.author, 'author')).status).toBe(403);
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: false } });
  });
});
