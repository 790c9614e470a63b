import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Feedback } from '../../contract/submissions.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

const ROUNDS = 15;

describe.each(bodies)('a return that crosses a change on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let submission: string;
  let remark: string;
  const question = randomUUID();

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    submission = await handIn(school);
    remark = await sayRemark(school, submission);
    await test.db.query(
      "insert into questions (id, assignment, position, kind, prompt, points) values ($1, $2, 0, 'short', 'Why?', 5)",
      [question, school.assignment],
    );
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const put = async (path: string, body: object, file?: Buffer) =>
    school.as.teacher.send('PUT', path, { body, ...(file && { file }) });
  const giveBack = (returned: boolean) => put(`/submissions/${submission}/returned`, { returned });
  const score = (level: string | null) =>
    put(`/submissions/${submission}/scores/${school.criteria[0]!.id}`, { score: level && { level } });
  const points = (given: number | null) => put(`/submissions/${submission}/points/${question}`, { points: given });
  const aside = (put_: boolean) => put(`/remarks/${remark}/aside`, { aside: put_ });
  const said = (text: string) => school.as.teacher.send('PATCH', `/remarks/${remark}`, { body: { text } });

  /** What a student is given; a machine may still be listening to the recording. */
  const result = ({ remarks, aside, scores, points, grade }: Feedback): object => ({
    ...{ scores, points, grade, aside: aside.map(({ id }) => id) },
    remarks: remarks.map(({ id, text }) => [id, text]),
  });

  it.each([
    ['score', () => score(school.criteria[0]!.levels[1]!), () => score(null)],
    ['points', () => points(300), () => points(null)],
    ['remark that is put aside', () => aside(false), () => aside(true)],
    ['remark that is changed', () => said('before'), () => said('after')],
  ])('never returns one thing and keeps another: a %s', async (_, prepare, change) => {
    for (let round = 0; round < ROUNDS; round++) {
      await giveBack(false);
      expect((await prepare()).status).toBe(200);
      const [returned, changed] = await Promise.all(
        round % 2 ? [giveBack(true), change()] : [change(), giveBack(true)].reverse(),
      );
      const answers = [returned!, changed!];
      const given = answers.find(({ json }) => 'rubric' in (json as object))!.json as Feedback;
      const { json } = await school.as.teacher.send('GET', `/submissions/${submission}/feedback`);
      expect(result(json as Feedback)).toEqual(result(given));
      for (const { status } of answers) expect([200, 409]).toContain(status);
    }
  });

  it('keeps no original of a recording that has been returned', async () => {
    await giveBack(false);
    await giveBack(true);
    expect((await put(`/recordings/${remark}/original`, {}, await voice())).status).toBe(409);
  });
});
