import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { AssignmentOverview } from '../../contract/assignments.ts';
import type { AssignmentCharts } from '../../contract/charts.ts';
import type { CellStory, Gradebook } from '../../contract/gradebook.ts';
import type { Moderation, SampledWorks } from '../../contract/moderation.ts';
import type { Feedback } from '../../contract/submissions.ts';
import type { Waiting } from '../../contract/waiting.ts';
import { enrol } from '../school/people.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';

type Who = 'teacher' | 'colleague' | 'author' | 'stranger';

describe.each(bodies)('a second marking, on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let work: string;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    await enrol(test.db, school.course, school.ids.colleague, 'teacher');
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });
  beforeEach(async () => {
    // Whoever still marks an earlier version a second time is blind to this one.
    await test.db.query(
      'update moderations set called_off_at = now() where finished_at is null and called_off_at is null',
    );
    work = await handIn(school);
    await score('teacher', work, school.criteria, [1, 0]);
  });

  const get = async <T>(who: Who, path: string): Promise<T> => (await school.as[who].send('GET', path)).json as T;
  async function score(
    who: Who,
    submission: string,
    criteria: readonly { id: string; levels: readonly string[] }[],
    places: number[],
  ): Promise<number[]> {
    const answers = await Promise.all(
      criteria.map(({ id, levels }, at) =>
        school.as[who].send('PUT', `/submissions/${submission}/scores/${id}`, {
          body: { score: { level: levels[places[at]!] } },
        }),
      ),
    );
    return answers.map(({ status }) => status);
  }
  const sample = async (more: object = {}): Promise<SampledWorks> => {
    const answer = await school.as.teacher.send('POST', `/assignments/${school.assignment}/sample`, {
      body: { marker: school.ids.colleague, random: 1, borders: 0, extremes: 0, ...more },
    });
    return (answer.json as { works: SampledWorks }).works;
  };
  const start = (works: unknown, marker = school.ids.colleague, who: Who = 'teacher') =>
    school.as[who].send('POST', `/assignments/${school.assignment}/moderations`, { body: { marker, works } });
  const begun = async (): Promise<{ id: string; second: string }> => {
    const { id } = (await start([{ work, reason: 'random' }])).json as { id: string };
    const { desk } = await get<Moderation>('colleague', `/moderations/${id}`);
    return { id, second: desk!.first };
  };
  /** The rubric of the copy, as the second marker sees it. */
  async function secondCriteria(second: string): Promise<{ id: string; levels: string[] }[]> {
    const { rubric } = await get<Feedback>('colleague', `/submissions/${second}/feedback`);
    return rubric.map(({ id, levels }) => ({ id, levels: levels.map((level) => level.id) }));
  }
  const finish = (id: string) => school.as.colleague.send('POST', `/moderations/${id}/finish`);

  it('is drawn with a seed that is kept, and draws the same again', async () => {
    const draw = async (seed?: string) =>
      (
        await school.as.teacher.send('POST', `/assignments/${school.assignment}/sample`, {
          body: { marker: school.ids.colleague, random: 1, borders: 0, extremes: 0, seed },
        })
      ).json as { works: SampledWorks; seed: string };
    const first = await draw();
    expect(first.seed).toMatch(/^[0-9a-f]{10}$/u);
    expect(await draw(first.seed)).toEqual(first);
    const started = await school.as.teacher.send('POST', `/assignments/${school.assignment}/moderations`, {
      body: { marker: school.ids.colleague, works: [{ work, reason: 'random' }], seed: first.seed },
    });
    const { id } = started.json as { id: string };
    expect(await get<Moderation>('teacher', `/moderations/${id}`)).toMatchObject({ seed: first.seed });
  });

  it('is of works that are scored completely, by somebody else who teaches the course', async () => {
    expect(await sample()).toMatchObject([{ work, reason: 'random', student: 'The author', percentage: 50_00 }]);
    expect(await sample({ random: 0, borders: 3 })).toMatchObject([{ work, reason: 'border' }]);
    expect((await start([{ work, reason: 'random' }], school.ids.teacher)).status).toBe(422);
    expect((await start([{ work, reason: 'random' }], school.ids.stranger)).status).toBe(422);
    expect((await start([{ work: randomUUID(), reason: 'random' }])).status).toBe(422);
    const twice = { work, reason: 'random' };
    expect((await start([twice, twice])).status).toBe(422);
    expect((await start([twice], school.ids.teacher, 'author')).status).toBe(403);
    const { criteria } = school;
    await school.as.teacher.send('PUT', `/submissions/${work}/scores/${criteria[0]!.id}`, { body: { score: null } });
    expect(await sample()).toEqual([]);
    await score('colleague', work, criteria, [1, 1]);
    expect(await sample()).toEqual([]);
  });

  it('stays blind to every version of the work, in counts and in bulk too', async () => {
    const remark = await sayRemark(school, work);
    await school.as.teacher.send('PUT', `/recordings/${remark}/transcript`, {
      body: { language: 'en', text: 'What the first marker said' },
    });
    await begun();
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    await school.as.author.send('PUT', `/remarks/${remark}/replies/${randomUUID()}`, {
      body: { text: 'What the student asks', recording: null },
    });
    const next = await handIn(school);
    for (const path of ['', '/earlier', '/feedback', '/class', '/as-student'])
      expect((await school.as.colleague.send('GET', `/submissions/${next}${path}`)).status).toBe(403);
    const told = await Promise.all([
      school.as.colleague.send('POST', '/waiting', { body: {} }),
      school.as.colleague.send('POST', '/search', { body: { words: 'marker' } }),
      ...[`/assignments/${school.assignment}`, `/courses/${school.course}/voice`, '/notices'].map((path) =>
        school.as.colleague.send('GET', path),
      ),
    ]);
    for (const { text } of told) {
      expect(text).not.toContain('What the first marker said');
      expect(text).not.toContain('What the student asks');
    }
    const { rows } = told[2]!.json as AssignmentOverview;
    expect(rows.find(({ submission }) => submission)!.submission).toMatchObject({
      ...{ remarks: 0, spoken: 0, heard: 0, unanswered: 0, grade: null },
    });
    const { students } = told[3]!.json as { students: { kinds: object; seconds: number }[] };
    expect(students.map(({ kinds, seconds }) => [kinds, seconds])).toEqual([
      [{}, 0],
      [{}, 0],
    ]);
    const { items } = told[0]!.json as Waiting;
    expect(items.filter(({ kind }) => kind === 'reply')).toEqual([]);
    expect(items.flatMap(({ work: waiting }) => waiting?.dealt ?? [])).toEqual([]);

    for (const [path, more] of [
      ['returned', { held: null }],
      ['planned', { at: new Date(Date.now() + 60_000).toISOString() }],
      ['taken-back', {}],
    ] as const) {
      const answer = await school.as.colleague.send('POST', `/assignments/${school.assignment}/${path}`, {
        body: { works: [next], ...more },
      });
      expect([path, answer.status]).toEqual([path, 403]);
    }
    const [row] = await test.db.query('select returned_at, return_at from submissions where id = $1', [next]);
    expect(row).toEqual({ returned_at: null, return_at: null });
  });

  it('shows the second marker nothing of what was given, anywhere', async () => {
    const remark = await sayRemark(school, work);
    const { id, second } = await begun();
    for (const path of [`/submissions/${work}`, `/submissions/${work}/feedback`]) {
      const answer = await school.as.colleague.send('GET', path);
      expect([answer.status, (answer.json as { type: string }).type]).toEqual([403, 'urn:vivid-margin:second-marking']);
    }
    expect(await score('colleague', work, school.criteria, [1, 1])).toEqual([403, 403]);

    const book = await get<Gradebook>('colleague', `/courses/${school.course}/gradebook`);
    const at = book.columns.findIndex((column) => column.id === school.assignment);
    const cellIn = ({ rows }: Gradebook) => rows.find((row) => row.id === school.ids.author)!.cells[at];
    expect(cellIn(book)).toMatchObject({ points: null, submission: null });
    expect(cellIn(await get('teacher', `/courses/${school.course}/gradebook`))).toMatchObject({ points: 250 });
    const typed = { assignment: school.assignment, student: school.ids.author, to: { points: 100 } };
    const change = { body: { changes: [typed], why: '' } };
    expect((await school.as.colleague.send('PUT', `/courses/${school.course}/gradebook`, change)).status).toBe(403);
    const place = `/assignments/${school.assignment}/students/${school.ids.author}/grade`;
    expect(await get('colleague', place)).toEqual({ explanation: '', changes: [] });
    expect((await get<AssignmentCharts>('colleague', `/assignments/${school.assignment}/charts`)).works).toEqual([]);
    expect((await get<AssignmentCharts>('teacher', `/assignments/${school.assignment}/charts`)).works).toHaveLength(1);
    expect((await get<{ rows: unknown[] }>('colleague', `/assignments/${school.assignment}/returning`)).rows).toEqual(
      [],
    );
    const search = { body: { words: 'waits' } };
    await school.as.teacher.send('PUT', `/recordings/${remark}/transcript`, {
      body: { language: 'en', text: 'It waits here' },
    });
    expect((await school.as.teacher.send('POST', '/search', search)).text).toContain(work);
    expect((await school.as.colleague.send('POST', '/search', search)).text).not.toContain(work);

    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    const overview = await get<AssignmentOverview>('colleague', `/assignments/${school.assignment}`);
    expect(overview.rows.map(({ submission }) => submission?.grade ?? null)).toEqual([null, null]);

    const csv = await school.as.colleague.send('GET', `/courses/${school.course}/gradebook/csv`);
    expect([csv.status, csv.text.includes('2.5')]).toEqual([200, false]);
    await school.as.teacher.send('DELETE', `/moderations/${id}`);
    expect((await school.as.colleague.send('GET', `/submissions/${work}/feedback`)).status).toBe(200);
    expect((await school.as.colleague.send('GET', `/moderations/${id}`)).status).toBe(404);
    const queue = await school.as.colleague.send('POST', '/waiting', { body: {} });
    expect(queue.text).not.toContain(second);
  });

  it('is a work on a desk of its own, that neither its student nor the first teacher sees', async () => {
    const { id, second } = await begun();
    const { assignments } = (await school.as.colleague.send('POST', '/waiting', { body: {} })).json as Waiting;
    expect(assignments.find(({ moderation }) => moderation === id)?.title).toBe('Second marking: Essay');
    for (const who of ['teacher', 'author', 'stranger'] as const)
      for (const path of [`/submissions/${second}`, `/submissions/${second}/feedback`])
        expect([who, (await school.as[who].send('GET', path)).status]).toEqual([who, 404]);
    const shown = await get<{ student: { name: string } }>('colleague', `/submissions/${second}`);
    expect(shown.student.name).toMatch(/^Student [0-9A-F]{4}$/u);
    expect((await school.as.author.send('GET', '/own-work')).text).not.toContain(second);
    expect((await school.as.colleague.send('GET', '/courses')).text).not.toContain('Second marking');
    expect(
      (await school.as.colleague.send('PUT', `/submissions/${second}/returned`, { body: { returned: true } })).status,
    ).toBe(403);
    expect((await get<Moderation>('teacher', `/moderations/${id}`)).desk).toBeNull();
  });

  it('is handed over once all is scored; then both are beside each other and stay as they are', async () => {
    const { id, second } = await begun();
    const criteria = await secondCriteria(second);
    expect((await finish(id)).json).toMatchObject({ type: 'urn:vivid-margin:not-scored-yet' });
    const waits = async (): Promise<boolean> =>
      (await school.as.colleague.send('POST', '/waiting', { body: {} })).text.includes(second);
    expect(await waits()).toBe(true);
    await score('colleague', second, criteria, [1, 1]);
    expect(await waits()).toBe(false);
    expect(await get('teacher', `/moderations/${id}`)).toMatchObject({ scored: 1, works: 1, compared: [] });
    expect((await school.as.teacher.send('POST', `/moderations/${id}/finish`)).status).toBe(403);
    expect((await finish(id)).status).toBe(200);
    expect((await finish(id)).status).toBe(403);

    const [one, two] = school.criteria;
    const { compared } = await get<Moderation>('teacher', `/moderations/${id}`);
    expect(compared).toMatchObject([
      {
        ...{ work, second, student: 'The author', firstMarkers: ['The teacher'], returned: false, settled: null },
        first: { [one!.id]: { level: one!.levels[1] }, [two!.id]: { level: two!.levels[0] } },
        secondScores: { [one!.id]: { level: one!.levels[1] }, [two!.id]: { level: two!.levels[1] } },
      },
    ]);
    expect((await school.as.teacher.send('GET', `/submissions/${second}/feedback`)).status).toBe(200);
    expect((await school.as.colleague.send('GET', `/submissions/${work}/feedback`)).status).toBe(200);
    expect((await school.as.author.send('GET', `/submissions/${second}/feedback`)).status).toBe(404);
    expect(await score('colleague', second, criteria, [0, 0])).toEqual([409, 409]);
    expect(await score('teacher', second, criteria, [0, 0])).toEqual([409, 409]);
    // The record is of what was then.
    await score('teacher', work, school.criteria, [0, 0]);
    expect((await get<Moderation>('teacher', `/moderations/${id}`)).compared[0]!.first).toEqual(compared[0]!.first);
    expect((await school.as.teacher.send('DELETE', `/moderations/${id}`)).status).toBe(403);
  });

  it('is settled: a draft is given what was agreed on, with its reason; what was returned only keeps the record', async () => {
    const { id, second } = await begun();
    const [one, two] = school.criteria;
    const agreed = { [one!.id]: { level: one!.levels[1] }, [two!.id]: { level: two!.levels[1] } };
    const settle = (scores: object, why = 'The second reading saw more.') =>
      school.as.teacher.send('PUT', `/moderations/${id}/works/${work}`, { body: { scores, why } });
    expect((await settle(agreed)).status).toBe(403);
    await score('colleague', second, await secondCriteria(second), [1, 1]);
    await finish(id);
    expect((await settle(agreed, ' ')).status).toBe(400);
    expect((await settle({ [one!.id]: agreed[one!.id]! })).status).toBe(422);
    expect((await settle({ ...agreed, [two!.id]: { level: one!.levels[0] } })).status).toBe(422);
    expect((await get<Feedback>('teacher', `/submissions/${work}/feedback`)).scores[two!.id]).toEqual({
      level: two!.levels[0],
    });
    expect((await settle(agreed)).json).toEqual({ unapplied: null });
    expect((await get<Feedback>('teacher', `/submissions/${work}/feedback`)).scores).toEqual(agreed);
    const { compared } = await get<Moderation>('colleague', `/moderations/${id}`);
    expect(compared[0]!.settled).toMatchObject({ scores: agreed, by: 'The teacher' });
    const place = `/assignments/${school.assignment}/students/${school.ids.author}/grade`;
    const { changes } = await get<CellStory>('teacher', place);
    expect(changes[0]!.why).toBe('settled after a second marking: The second reading saw more.');

    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    const back = { ...agreed, [two!.id]: { level: two!.levels[0] } };
    expect((await settle(back, 'We looked once more.')).json).toEqual({ unapplied: 'returned' });
    expect((await get<Feedback>('teacher', `/submissions/${work}/feedback`)).scores).toEqual(agreed);

    const stands = async () => (await get<Moderation>('teacher', `/moderations/${id}`)).compared[0]!.unapplied;
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: false } });
    expect(await stands()).toBe('levels');
    await school.as.teacher.send('PUT', `/submissions/${work}/adjustment`, {
      body: { adjustment: { extra: 100, total: 300, reason: 'Set by hand' } },
    });
    await school.as.teacher.send('PUT', `/submissions/${work}/returned`, { body: { returned: true } });
    expect(await stands()).toBe('returned');
    const apply = () => school.as.teacher.send('POST', `/moderations/${id}/works/${work}/applied`);
    expect((await school.as.stranger.send('POST', `/moderations/${id}/works/${work}/applied`)).status).toBe(404);
    expect((await apply()).status).toBe(200);
    expect(await stands()).toBeNull();
    const feedback = await get<Feedback>('teacher', `/submissions/${work}/feedback`);
    expect(feedback).toMatchObject({ returnedAt: null, scores: back, adjustment: { extra: 100, total: null } });
    expect((await get<CellStory>('teacher', place)).changes[0]!.why).toBe(
      'settled after a second marking: We looked once more.',
    );

    await handIn(school);
    expect(await stands()).toBeNull();
    expect((await settle(agreed)).json).toEqual({ unapplied: 'replaced' });
    expect((await apply()).status).toBe(409);
  });
});
