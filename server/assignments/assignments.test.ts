import { PLAIN_MARKING } from '#core/grading';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AssignmentOverview, OwnWork } from '../../contract/assignments.ts';
import { NO_WORDS } from '../../contract/said.ts';
import type { Feedback } from '../../contract/submissions.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { essay, savedAgain, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('an assignment on $name', ({ open }) => {
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

  const make = async (title = 'A walk'): Promise<string> => {
    const answer = await school.as.teacher.send('POST', `/courses/${school.course}/assignments`, { body: { title } });
    return (answer.json as { id: string }).id;
  };
  const set = (assignment: string, body: object) =>
    school.as.teacher.send('PATCH', `/assignments/${assignment}`, { body });
  const ask = (assignment: string, questions: object[]) =>
    school.as.teacher.send('PUT', `/assignments/${assignment}/questions`, { body: { questions } });
  const ownTitles = async (): Promise<string[]> =>
    ((await school.as.author.send('GET', '/own-work')).json as OwnWork[]).map(({ assignment }) => assignment.title);
  const question = (more: object = {}) => ({
    ...{ id: randomUUID(), kind: 'short', prompt: 'How high?', choices: [], points: 250 },
    ...more,
  });

  it('is made from a title, and there for students only once it is open', async () => {
    const assignment = await make('Seen later');
    expect(await ownTitles()).not.toContain('Seen later');
    const work = { file: savedAgain(await essay()), fileName: 'essay.docx' };
    expect((await school.as.author.send('POST', `/assignments/${assignment}/submissions`, work)).status).toBe(404);
    expect((await set(assignment, { open: true, brief: 'Walk.', dueAt: '2026-12-01T23:59:00+01:00' })).json).toEqual({
      ...{
        title: 'Seen later',
        extra: false,
        brief: 'Walk.',
        dueAt: '2026-12-01T22:59:00.000Z',
        budget: 30,
        open: true,
        anonymous: false,
      },
      ...{ term: null, category: '', weight: null, attempts: null, formats: null },
      marking: PLAIN_MARKING,
    });
    expect(await ownTitles()).toContain('Seen later');
    expect((await school.as.author.send('POST', `/assignments/${assignment}/submissions`, work)).status).toBe(200);
    // Who has handed in goes on seeing it, even where it is hidden again.
    await set(assignment, { open: false });
    expect(await ownTitles()).toContain('Seen later');
  });

  it.each([
    ['no title', { title: ' ' }],
    ['a due date that is none', { dueAt: 'tomorrow' }],
    ['a budget of no time', { budget: -3 }],
  ])('is not changed by %s', async (_, body) => {
    const assignment = await make();
    expect((await set(assignment, body)).status).toBe(400);
    const { json } = await school.as.teacher.send('GET', `/assignments/${assignment}`);
    expect(json).toMatchObject({ title: 'A walk', dueAt: null } satisfies Partial<AssignmentOverview>);
  });

  it('has questions that keep their identity when they are changed and moved, until somebody has answered', async () => {
    const assignment = await make('Arithmetic');
    const [one, two] = [question(), question({ kind: 'choice', choices: ['ebb', 'flood'], points: 0 })];
    expect((await ask(assignment, [one, two])).json).toEqual({ questions: [one, two] });
    const changed = [two, { ...one, prompt: 'How low?' }, question()];
    expect((await ask(assignment, changed)).json).toEqual({ questions: changed });
    expect((await ask(assignment, changed.slice(0, 2))).json).toEqual({ questions: changed.slice(0, 2) });
    for (const wrong of [{ prompt: ' ' }, { points: -1 }, { points: 1.5 }, { kind: 'choice', choices: ['one'] }])
      expect((await ask(assignment, [question(wrong)])).status).toBe(400);
    // One of another assignment is not taken away from it.
    const elsewhere = await make('Elsewhere');
    expect((await ask(elsewhere, [{ ...one, prompt: 'Stolen' }])).json).toEqual({ questions: [] });

    await set(assignment, { open: true });
    const answers = { answers: { [one.id]: '3 m' } };
    const handedIn = await school.as.author.send('POST', `/assignments/${assignment}/answers/handed-in`, {
      body: answers,
    });
    expect(handedIn.status).toBe(200);
    expect((await ask(assignment, [])).json).toMatchObject({ type: 'urn:vivid-margin:questions-answered' });
  });

  it('takes works that a teacher puts in for a student, and for nobody else', async () => {
    const assignment = await make('On paper');
    const put = async (student: string) =>
      school.as.teacher.send('POST', `/assignments/${assignment}/works`, {
        ...{ body: { student }, file: savedAgain(await essay()), fileName: 'scan.docx' },
      });
    expect((await put(school.ids.classmate)).status).toBe(200);
    for (const nobody of [school.ids.stranger, school.ids.teacher, randomUUID()])
      expect((await put(nobody)).json).toMatchObject({ type: 'urn:vivid-margin:not-a-student' });
    const { rows } = (await school.as.teacher.send('GET', `/assignments/${assignment}`)).json as AssignmentOverview;
    expect(rows.map(({ student, submission }) => [student.name, submission?.version])).toEqual([
      ['The author', undefined],
      ['The classmate', 1],
    ]);
    const own = (await school.as.classmate.send('GET', '/own-work')).json as OwnWork[];
    expect(own.find((one) => one.assignment.id === assignment)?.versions).toMatchObject([{ files: ['scan.docx'] }]);
  });

  it('has a rubric that can be changed, and in a new version once somebody is scored by it', async () => {
    const assignment = await make('Scored');
    const level = (title: string, points: number) => ({ id: randomUUID(), title, description: '', points });
    const criterion = (title: string) => ({
      ...{ id: randomUUID(), title, description: 'How well' },
      levels: [level('Low', 0), level('High', 750)],
    });
    const put = (body: object) => school.as.teacher.send('PUT', `/assignments/${assignment}/rubric`, { body });
    const [one, two] = [criterion('One'), criterion('Two')];
    const scale = [{ grade: 'Pass', from: 5000 }];
    expect((await put({ rubric: [one, two] })).json).toEqual({ rubric: [one, two] });
    const putScale = (wanted: object[]) =>
      school.as.teacher.send('PUT', `/assignments/${assignment}/scale`, { body: { scale: wanted } });
    expect((await putScale(scale)).json).toEqual({ scale });
    const changed = [
      { ...two, title: 'Two, better' },
      { ...one, levels: [level('Only', 100)] },
    ];
    expect((await put({ rubric: changed })).json).toEqual({ rubric: changed });

    for (const wrong of [
      [{ ...one, levels: [] }],
      [{ ...one, title: ' ' }],
      [{ ...one, levels: [level('L', -1)] }],
      [{ ...one, levels: [level('L', 0.5)] }],
    ])
      expect((await put({ rubric: wrong })).status).toBe(400);
    const twice = [...scale, { grade: 'Pass', from: 0 }];
    expect((await putScale(twice)).status).toBe(400);
    const weighed = changed.map((criterion, index) => ({ ...criterion, weight: [4000, 5000][index] }));
    expect((await put({ rubric: weighed })).json).toMatchObject({
      ...{ status: 422, detail: 'The weights add up to 90 %, not to 100 %.' },
    });

    const shelf = (await school.as.teacher.send('GET', '/rubrics')).json as { title: string; rubric: object[] }[];
    expect(shelf.map(({ title }) => title)).toEqual(['Scored', 'Essay']);
    expect(shelf[0]!.rubric[0]).toEqual({
      ...{ title: 'Two, better', description: 'How well' },
      levels: [
        { title: 'Low', description: '', points: 0 },
        { title: 'High', description: '', points: 750 },
      ],
    });
    expect((await school.as.author.send('GET', '/rubrics')).json).toEqual([]);

    const handedIn = await school.as.teacher.send('POST', `/assignments/${assignment}/works`, {
      ...{ body: { student: school.ids.author }, file: savedAgain(await essay()), fileName: 'scan.docx' },
    });
    const { submission } = handedIn.json as { submission: string };
    const score = { body: { score: { level: two.levels[1]!.id } } };
    expect((await school.as.teacher.send('PUT', `/submissions/${submission}/scores/${two.id}`, score)).status).toBe(
      200,
    );
    const remark = randomUUID();
    const about = {
      anchor: { type: 'whole' },
      kind: 'repair',
      said: { ...NO_WORDS, text: 'More.', criterion: two.id },
    };
    await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${remark}`, { body: about });

    // From now on what is changed is a new version, and each work has its own.
    const feedback = async (): Promise<Feedback> =>
      (await school.as.teacher.send('GET', `/submissions/${submission}/feedback`)).json as Feedback;
    const better = [{ ...changed[0]!, description: 'How very well' }, criterion('Three')];
    expect((await put({ rubric: better })).status).toBe(200);
    expect((await feedback()).rubric).toEqual(changed);
    const other = await school.as.teacher.send('POST', `/assignments/${assignment}/works`, {
      ...{ body: { student: school.ids.classmate }, file: savedAgain(await essay()), fileName: 'scan.docx' },
    });
    const second = (other.json as { submission: string }).submission;
    const newest = (await school.as.teacher.send('GET', `/assignments/${assignment}/rubric`)).json as {
      rubric: Feedback['rubric'];
      scored: object[];
    };
    expect(newest.scored).toEqual([]);
    expect(newest.rubric.map(({ title, description }) => [title, description])).toEqual([
      ['Two, better', 'How very well'],
      ['Three', 'How well'],
    ]);
    const [named] = newest.rubric;
    await school.as.teacher.send('PUT', `/submissions/${second}/scores/${named!.id}`, {
      body: { score: { level: named!.levels[1]!.id } },
    });
    const onSecond = randomUUID();
    await school.as.teacher.send('PUT', `/submissions/${second}/remarks/${onSecond}`, {
      body: { ...about, said: { ...about.said, criterion: named!.id } },
    });
    // One that moves takes along what is called the same.
    expect((await put({ rubric: newest.rubric, move: [second] })).status).toBe(200);
    const moved = (await school.as.teacher.send('GET', `/submissions/${second}/feedback`)).json as Feedback;
    const [now] = moved.rubric;
    expect(now!.id).not.toBe(named!.id);
    expect([moved.scores, moved.remarks[0]!.criterion]).toEqual([
      { [now!.id]: { level: now!.levels[1]!.id } },
      now!.id,
    ]);
    expect((await feedback()).scores).toEqual({ [two.id]: { level: two.levels[1]!.id } });
    const old = await school.as.teacher.send('PUT', `/submissions/${second}/scores/${named!.id}`, {
      body: { score: { level: named!.levels[1]!.id } },
    });
    expect(old.status).toBe(422);
  });
});
