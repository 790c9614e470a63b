import { PLAIN_MARKING } from '#core/grading';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AssignmentOverview } from '../../contract/assignments.ts';
import type { Waiting } from '../../contract/waiting.ts';
import type { ReturnRow } from '../../contract/returning.ts';
import type { Feedback } from '../../contract/submissions.ts';
import { addPerson, enrol } from '../school/people.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { essay, handIn, savedAgain, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';
import { returnPlanned } from './planned.ts';

describe.each(bodies)('a return on $name', ({ open }) => {
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

  const rows = async (): Promise<ReturnRow[]> =>
    ((await school.as.teacher.send('GET', `/assignments/${school.assignment}/returning`)).json as { rows: ReturnRow[] })
      .rows;
  const post = (what: string, body: object) =>
    school.as.teacher.send('POST', `/assignments/${school.assignment}/${what}`, { body });
  const put = (path: string, body: object) => school.as.teacher.send('PUT', path, { body });
  const read = async (who: 'teacher' | 'author', submission: string): Promise<Feedback | undefined> => {
    const { status, json } = await school.as[who].send('GET', `/submissions/${submission}/feedback`);
    return status === 200 ? (json as Feedback) : undefined;
  };
  const score = (submission: string, index: number, given: object | null, was?: object | null) =>
    put(`/submissions/${submission}/scores/${school.criteria[index]!.id}`, {
      score: given,
      ...(was !== undefined && { was }),
    });
  const level = (index: number, at: number) => ({ level: school.criteria[index]!.levels[at]! });
  const scoreAll = async (submission: string): Promise<void> => {
    await score(submission, 0, level(0, 1));
    await score(submission, 1, level(1, 0));
  };

  it('goes from draft over ready to returned, and leaves the queue at once', async () => {
    const submission = await handIn(school);
    const queue = async (): Promise<string[]> =>
      ((await school.as.teacher.send('POST', '/waiting', { body: {} })).json as Waiting).items.map(
        (one) => one.submission,
      );
    expect(await queue()).toContain(submission);
    const [before] = await rows();
    expect(before).toMatchObject({
      state: 'waiting',
      grade: null,
      findings: [{ type: 'nothingSaid' }],
    });
    expect((await put(`/submissions/${submission}/ready`, { ready: true })).status).toBe(200);
    expect([(await rows())[0]!.state, await queue()]).toEqual(['ready', []]);
    await put(`/submissions/${submission}/ready`, { ready: false });
    expect(await queue()).toEqual([submission]);
    await scoreAll(submission);
    const { json } = await post('returned', { works: [submission, randomUUID()], held: null });
    expect(json).toEqual({ returned: [submission] });
    expect((await read('author', submission))!.grade).toMatchObject({
      ...{ points: 250, grade: 'Pass' },
      explanation: '2.5 + 0 = 2.5 of 5, that is 50 %: Pass.',
    });
    expect((await put(`/submissions/${submission}/ready`, { ready: true })).status).toBe(409);
  });

  it('is taken back within a minute as if it had never been; later it is a correction, which says what changed', async () => {
    const submission = await handIn(school);
    const remark = await sayRemark(school, submission);
    await scoreAll(submission);
    await post('returned', { works: [submission], held: null });
    expect((await post('taken-back', { works: [submission] })).json).toEqual({ takenBack: [submission] });
    expect([await read('author', submission), (await read('teacher', submission))!.returns]).toEqual([undefined, []]);

    await post('returned', { works: [submission], held: null });
    await test.db.query("update submissions set returned_at = now() - interval '2 minutes' where id = $1", [
      submission,
    ]);
    expect((await post('taken-back', { works: [submission] })).json).toEqual({ takenBack: [] });
    await put(`/submissions/${submission}/returned`, { returned: false });
    const second = await sayRemark(school, submission, 'empty');
    await put(`/recordings/${remark}/transcript`, { language: 'en', text: 'Better words.' });
    await score(submission, 1, { points: 125 });
    await post('returned', { works: [submission], held: null });
    const seen = (await read('author', submission))!;
    expect(seen.returns).toHaveLength(2);
    expect(seen.changed).toMatchObject({
      ...{ added: [second], changed: [remark], gone: 0, scores: [school.criteria[1]!.id] },
      grade: { points: 250 },
    });
  });

  it('holds back the grade or the remarks, everywhere, until they are sent too', async () => {
    const submission = await handIn(school);
    const remark = await sayRemark(school, submission);
    await scoreAll(submission);
    await post('returned', { works: [submission], held: 'grade' });
    expect(await read('author', submission)).toMatchObject({
      held: 'grade',
      grade: null,
      scores: {},
      remarks: [{ id: remark }],
    });
    const level0 = school.criteria[0]!.levels[1]!;
    const all = await Promise.all(
      ['/own-work', `/submissions/${submission}`, `/submissions/${submission}/feedback`].map(async (path) =>
        JSON.stringify((await school.as.author.send('GET', path)).json),
      ),
    );
    expect(all.join('')).not.toContain('Pass.');
    expect(all.join('')).not.toContain(`"level":"${level0}"`);
    expect((await read('teacher', submission))!.grade).toMatchObject({ points: 250 });
    expect((await post('returned', { works: [submission], held: null })).json).toEqual({ returned: [submission] });
    expect((await read('author', submission))!.grade).toMatchObject({ points: 250 });

    await post('taken-back', { works: [submission] });
    await post('returned', { works: [submission], held: 'remarks' });
    expect(await read('author', submission)).toMatchObject({ remarks: [], grade: { points: 250 } });
    const { sound } = (await read('teacher', submission))!.remarks[0]!.recording!;
    const hear = await school.as.author.send('GET', `/recordings/${remark}/sound/${sound.sha256}`);
    const found = await school.as.author.send('POST', '/search', { body: { words: 'better' } });
    expect([hear.status, JSON.stringify(found.json).includes(remark)]).toEqual([404, false]);
    await post('returned', { works: [submission], held: null });
    expect((await school.as.author.send('GET', `/recordings/${remark}/sound/${sound.sha256}`)).status).toBe(200);
  });

  it('goes out by itself at a set time, and not before', async () => {
    const submission = await handIn(school);
    const plan = (at: string | null) => post('planned', { works: [submission], at });
    await plan(new Date(Date.now() + 60_000).toISOString());
    await returnPlanned(test.db);
    expect(await read('author', submission)).toBeUndefined();
    expect((await rows())[0]).toMatchObject({ state: 'ready', returnedAt: null });
    await plan(null);
    await test.db.query("update submissions set return_at = now() - interval '1 second' where id = $1", [submission]);
    await returnPlanned(test.db);
    expect((await read('author', submission))!.returnedAt).not.toBeNull();
    expect((await plan('soon')).status).toBe(400);
  });

  it('is all of a work or nothing of it, where it breaks off in the middle', async () => {
    const works: string[] = [];
    for (let index = 0; index < 5; index++) {
      const student = await addPerson(test.db, {
        name: `Student ${index}`,
        login: `s${index}-${randomUUID()}`,
        passwordHash: '',
      });
      await enrol(test.db, school.course, student, 'student');
      const answer = await school.as.teacher.send('POST', `/assignments/${school.assignment}/works`, {
        ...{ body: { student }, file: savedAgain(await essay()), fileName: 'scan.docx' },
      });
      works.push((answer.json as { submission: string }).submission);
    }
    await test.db.script(`create function break_off() returns trigger language plpgsql as $$ begin
      if (select count(*) from returns where submission in (${works.map((id) => `'${id}'`).join(', ')})) >= 2
        then raise exception 'broken off'; end if; return new; end $$;
      create trigger break_off before insert on returns for each row execute function break_off()`);
    expect((await post('returned', { works, held: null })).status).toBe(500);
    const state = async () =>
      test.db.query(
        `select returned_at is not null as returned, exists (select from returns r where r.submission = s.id) as told
         from submissions s where id in (select value::uuid from jsonb_array_elements_text($1::jsonb))`,
        [JSON.stringify(works)],
      );
    const broken = await state();
    expect(broken.map(({ returned }) => returned).filter(Boolean)).toHaveLength(2);
    expect(broken.every(({ returned, told }) => returned === told)).toBe(true);
    await test.db.script('drop trigger break_off on returns; drop function break_off');
    expect(((await post('returned', { works, held: null })).json as { returned: string[] }).returned).toHaveLength(3);
    expect((await state()).every(({ returned, told }) => returned && told)).toBe(true);
  });

  it('shows the teacher exactly what the student will see', async () => {
    const submission = await handIn(school);
    await sayRemark(school, submission);
    await scoreAll(submission);
    const preview = (await school.as.teacher.send('GET', `/submissions/${submission}/as-student`)).json as Feedback;
    await post('returned', { works: [submission], held: null });
    const seen = (await read('author', submission))!;
    const { returnedAt: _at, returns: _returns, readyAt: _ready, ...given } = seen;
    expect(preview).toMatchObject(given);
    expect((await school.as.author.send('GET', `/submissions/${submission}/as-student`)).status).toBe(403);
  });

  describe('what makes the result', () => {
    it('is typed points, left out, extra, another total with a reason; and refused where it cannot be', async () => {
      const submission = await handIn(school);
      await score(submission, 0, { points: 175 });
      await score(submission, 1, { notAssessed: true });
      for (const wrong of [{ points: 251 }, { points: -1 }, { points: 1.5 }, { points: 'NaN' }, { level: 'high' }, {}])
        expect([400, 422]).toContain((await score(submission, 0, wrong)).status);
      const result = async () => (await rows()).find((row) => row.submission === submission)!.grade;
      expect(await result()).toMatchObject({ points: 175, possible: 250 });
      const adjust = (adjustment: object | null, was?: object | null) =>
        put(`/submissions/${submission}/adjustment`, { adjustment, ...(was !== undefined && { was }) });
      await adjust({ extra: 50, total: null, reason: '' });
      expect(await result()).toMatchObject({
        points: 225,
        explanation: '1.75, with 0.5 extra: 2.25 of 2.5, that is 90 %: Pass.',
      });
      await adjust({ extra: null, total: 250, reason: 'Agreed' });
      const byAnother = () =>
        test.db.query('update adjustments set set_by = $2 where submission = $1', [submission, school.ids.colleague]);
      await byAnother();
      expect(await result()).toMatchObject({ points: 250 });
      for (const wrong of [
        { extra: null, total: -1, reason: '' },
        { total: 1 },
        { extra: 1e9, total: null, reason: '' },
      ])
        expect((await adjust(wrong)).status).toBe(400);
      expect((await adjust(null, { extra: 1, total: null, reason: '' })).json).toMatchObject({
        ...{ status: 409, now: { extra: null, total: 250, reason: 'Agreed' } },
      });
      await adjust(null);
      expect(await result()).toMatchObject({ points: 175 });
    });

    it('is not overwritten by somebody who has not seen it', async () => {
      const submission = await handIn(school);
      await score(submission, 0, level(0, 1), null);
      // One's own may change faster than it is seen.
      expect((await score(submission, 0, { points: 100 }, null)).status).toBe(200);
      await score(submission, 0, level(0, 1));
      await test.db.query('update scores set chosen_by = $2 where submission = $1', [submission, school.ids.colleague]);
      const crossed = await score(submission, 0, level(0, 0), null);
      expect([crossed.status, crossed.json]).toMatchObject([409, { now: level(0, 1) }]);
      expect((await score(submission, 0, level(0, 1), null)).status).toBe(200);
      expect((await score(submission, 0, level(0, 0), level(0, 1))).status).toBe(200);
    });

    it('follows lateness, more time and flags', async () => {
      const submission = await handIn(school);
      await scoreAll(submission);
      const late = { grace: 0, unit: 'day', percent: 1000, of: 'possible', floor: 3000 };
      const marking = { ...PLAIN_MARKING, late };
      const set = (body: object) => school.as.teacher.send('PATCH', `/assignments/${school.assignment}`, { body });
      expect((await set({ marking })).json).toMatchObject({ marking });
      for (const wrong of [
        { ...late, percent: 10_001 },
        { ...late, grace: -1 },
        { ...late, unit: 'week' },
      ])
        expect((await set({ marking: { ...marking, late: wrong } })).status).toBe(400);
      const row = async () => (await rows()).find((one) => one.submission === submission)!;
      expect((await row()).grade).toMatchObject({
        points: 150,
        explanation: expect.stringContaining('down to the floor'),
      });
      const standing = (body: object, student = school.ids.author) =>
        put(`/assignments/${school.assignment}/students/${student}`, body);
      await standing({ flag: null, extendedUntil: '2099-01-01T00:00:00Z' });
      expect((await row()).grade).toMatchObject({ points: 250 });
      await standing({ flag: 'excused', extendedUntil: null });
      expect((await row()).grade).toBeNull();
      await post('returned', { works: [submission], held: null });
      expect((await read('author', submission))!.grade).toBeNull();
      await post('taken-back', { works: [submission] });
      const overview = (await school.as.teacher.send('GET', `/assignments/${school.assignment}`))
        .json as AssignmentOverview;
      expect(overview.rows.find(({ student }) => student.id === school.ids.author)).toMatchObject({
        ...{ standing: { flag: 'excused' }, submission: { late: true } },
      });
      expect((await standing({ flag: 'lost', extendedUntil: null })).status).toBe(400);
      expect((await standing({ flag: null, extendedUntil: null }, school.ids.stranger)).status).toBe(422);
      await standing({ flag: null, extendedUntil: null });
      await set({ marking: PLAIN_MARKING });
    });
  });
});
