import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Feedback, Work } from '../../contract/submissions.ts';
import type { Waiting } from '../../contract/waiting.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { essay, spoken, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('answers on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  const questions = [randomUUID(), randomUUID(), randomUUID()];
  const [number, choice, long] = questions as [string, string, string];

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    const rows: [string, string, string, string[], number][] = [
      [number, 'number', 'How many metres?', [], 2],
      [choice, 'choice', 'Ebb or flood?', ['ebb', 'flood'], 1],
      [long, 'long', 'Why?', [], 2.5],
    ];
    for (const [position, [id, kind, prompt, choices, points]] of rows.entries())
      await test.db.query(
        'insert into questions (id, assignment, position, kind, prompt, choices, points) values ($1, $2, $3, $4, $5, $6, $7)',
        [id, school.assignment, position, kind, prompt, JSON.stringify(choices), points],
      );
    await test.db.query('delete from levels');
    await test.db.query('delete from criteria');
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const path = (): string => `/assignments/${school.assignment}/answers`;
  const keep = (answers: object, who: 'author' | 'classmate' = 'author') =>
    school.as[who].send('PUT', path(), { body: { answers } });
  const handIn = (answers: object) => school.as.author.send('POST', `${path()}/handed-in`, { body: { answers } });

  it('keeps what is being typed, for its student alone', async () => {
    expect((await school.as.author.send('GET', path())).json).toEqual({ answers: {} });
    await keep({ [number]: '4.', [randomUUID()]: 'to no question' });
    expect((await school.as.author.send('GET', path())).json).toEqual({ answers: { [number]: '4.' } });
    expect((await school.as.classmate.send('GET', path())).json).toEqual({ answers: {} });
    expect((await school.as.teacher.send('GET', path())).status).toBe(403);
  });

  it.each([
    ['nothing at all', {}, 'Nothing answered'],
    ['a number in words', { [number]: 'about four' }, 'Answer not understood'],
    ['what cannot be chosen', { [choice]: 'neither' }, 'Answer not understood'],
  ])('refuses %s and changes nothing', async (_, answers, title) => {
    const answer = await handIn(answers);
    expect([answer.status, (answer.json as { title: string }).title]).toEqual([422, title]);
    expect(await test.db.query('select 1 as one from submissions')).toEqual([]);
  });

  it('refuses a file where answers are wanted', async () => {
    const answer = await school.as.author.send('POST', `/assignments/${school.assignment}/submissions`, {
      file: await essay(),
      fileName: 'a.docx',
    });
    expect((answer.json as { title: string }).title).toBe('Questions to answer');
  });

  it('become a work with a leaf for each question, that can be spoken about and scored', async () => {
    const answer = await handIn({ [number]: ' 4,1 ', [choice]: 'ebb', [long]: 'First.\n\nThen second.' });
    const { submission } = answer.json as { submission: string };
    const { folio } = (await school.as.teacher.send('GET', `/submissions/${submission}`)).json as Work;
    expect(folio.text).toBe(' 4,1 \nebb\nFirst.\n\nThen second.\n');
    expect(folio.leaves.map((leaf) => leaf.kind === 'answer' && [leaf.question, leaf.prompt])).toEqual([
      [number, 'How many metres?'],
      [choice, 'Ebb or flood?'],
      [long, 'Why?'],
    ]);

    const remark = (question: string) =>
      school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${randomUUID()}`, {
        body: { anchor: { type: 'answer', question }, kind: 'question', said: spoken(randomUUID()) },
        file: Buffer.alloc(0),
      });
    expect((await remark(long)).status).toBe(422);
    const voiced = await school.as.teacher.send('PUT', `/submissions/${submission}/remarks/${randomUUID()}`, {
      body: { anchor: { type: 'answer', question: long }, kind: 'question', said: spoken(randomUUID()) },
      file: await voice(),
    });
    expect(voiced.status).toBe(200);

    const give = (question: string, points: number | null) =>
      school.as.teacher.send('PUT', `/submissions/${submission}/points/${question}`, { body: { points } });
    expect((await give(number, 201)).status).toBe(422);
    expect((await give(randomUUID(), 1)).status).toBe(422);
    await give(number, 200);
    await give(choice, 100);
    expect((await give(choice, null)).json).toEqual({ points: { [number]: 200 } });
    await give(choice, 0);
    await give(long, 125);
    const { items } = (await school.as.teacher.send('POST', '/waiting', { body: {} })).json as Waiting;
    expect(items[0]!.work!.state).toBe('begun');
    const returned = await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, {
      body: { returned: true },
    });
    // 3.25 of 5.5 points are 59.09 %, rounded half up.
    expect((returned.json as Feedback).grade).toEqual({
      ...{ points: 325, possible: 550, percentage: 5909, grade: 'Pass' },
      explanation: '2 + 0 + 1.25 = 3.25 of 5.5, that is 59.09 %: Pass.',
    });
    const feedback = (await school.as.author.send('GET', `/submissions/${submission}/feedback`)).json as Feedback;
    expect(feedback.points).toEqual({ [number]: 200, [choice]: 0, [long]: 125 });
    expect((await give(number, 100)).status).toBe(409);
  });
});
