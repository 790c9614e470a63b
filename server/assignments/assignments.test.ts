import { PLAIN_MARKING } from '#core/grading';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AssignmentOverview, OwnWork } from '../../contract/assignments.ts';
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
      ...{ title: 'Seen later', brief: 'Walk.', dueAt: '2026-12-01T22:59:00.000Z', budget: 30, open: true },
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

  it('has a rubric that can be written and changed until somebody is scored by it', async () => {
    const assignment = await make('Scored');
    const level = (title: string, points: number) => ({ id: randomUUID(), title, description: '', points });
    const criterion = (title: string) => ({
      ...{ id: randomUUID(), title, description: 'How well' },
      levels: [level('Low', 0), level('High', 750)],
    });
    const put = (body: object) => school.as.teacher.send('PUT', `/assignments/${assignment}/rubric`, { body });
    const [one, two] = [criterion('One'), criterion('Two')];
    const scale = [{ grade: 'Pass', from: 5000 }];
    expect((await put({ rubric: [one, two], scale })).json).toEqual({ rubric: [one, two], scale });
    const changed = [
      { ...two, title: 'Two, better' },
      { ...one, levels: [level('Only', 100)] },
    ];
    expect((await put({ rubric: changed, scale: [] })).json).toEqual({ rubric: changed, scale: [] });

    for (const wrong of [
      [{ ...one, levels: [] }],
      [{ ...one, title: ' ' }],
      [{ ...one, levels: [level('L', -1)] }],
      [{ ...one, levels: [level('L', 0.5)] }],
    ])
      expect((await put({ rubric: wrong, scale: [] })).status).toBe(400);
    const twice = [...scale, { grade: 'Pass', from: 0 }];
    expect((await put({ rubric: changed, scale: twice })).status).toBe(400);

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
    expect((await put({ rubric: [], scale: [] })).json).toMatchObject({ type: 'urn:vivid-margin:rubric-in-use' });
    expect((await school.as.teacher.send('GET', `/assignments/${assignment}/rubric`)).json).toMatchObject({
      ...{ rubric: changed, scored: 1 },
    });
  });
});
