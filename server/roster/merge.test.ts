import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { OwnWork } from '../../contract/assignments.ts';
import type { Member } from '../../contract/roster.ts';
import { enrol } from '../school/people.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { essay, handIn, savedAgain, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('a student who was entered twice, on $name', ({ open }) => {
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

  const merge = (from: string, into: string, who: 'teacher' | 'colleague' = 'teacher') =>
    school.as[who].send('POST', `/courses/${school.course}/people/${from}/merged`, { body: { into } });
  const members = async (): Promise<Member[]> =>
    ((await school.as.teacher.send('GET', `/courses/${school.course}/members`)).json as { members: Member[] }).members;

  it('is one again, with the works of both in the order in which they came, and all that hangs on them', async () => {
    const { author, classmate } = school.ids;
    const first = await handIn(school);
    const remark = await sayRemark(school, first);
    await school.as.teacher.send('PUT', `/submissions/${first}/returned`, { body: { returned: true } });
    await school.as.author.send('PUT', `/remarks/${remark}/replies/${randomUUID()}`, {
      body: { text: 'I see.', recording: null },
    });
    const other = await school.as.classmate.send('POST', `/assignments/${school.assignment}/submissions`, {
      file: savedAgain(await essay()),
      fileName: 'essay.docx',
    });
    const between = (other.json as { submission: string }).submission;
    const last = await handIn(school);
    await test.db.query("update people set number = 'A7' where id = $1", [author]);

    expect((await merge(author, classmate)).json).toMatchObject({ id: classmate, number: 'A7', works: 3 });
    expect((await members()).map(({ id }) => id)).not.toContain(author);
    const [own] = (await school.as.classmate.send('GET', '/own-work')).json as OwnWork[];
    expect(own!.versions.map(({ version, submission }) => [version, submission])).toEqual([
      [3, last],
      [2, between],
      [1, first],
    ]);
    expect((await school.as.classmate.send('GET', `/submissions/${first}/feedback`)).text).toContain('I see.');
    expect((await school.as.author.send('GET', '/own-work')).status).toBe(401);
  });

  it('is not merged with a teacher, with nobody, or where they are in a course of somebody else', async () => {
    const { classmate, teacher, stranger } = school.ids;
    await enrol(test.db, school.course, stranger, 'student');
    await test.db.query('update people set steward = true where id = $1', [school.ids.colleague]);
    await enrol(test.db, school.course, school.ids.colleague, 'student');
    for (const [from, into] of [
      [classmate, teacher],
      [teacher, classmate],
      [classmate, randomUUID()],
      [classmate, classmate],
    ] as const)
      expect((await merge(from, into)).status).toBe(404);
    // Neither the one who goes nor the one who stays: whoever can come in as the first would come in as the second.
    for (const [from, into] of [
      [stranger, classmate],
      [classmate, stranger],
      [classmate, school.ids.colleague],
    ] as const)
      expect((await merge(from, into)).json).toMatchObject({ type: 'urn:vivid-margin:not-only-yours' });
    expect((await merge(classmate, stranger, 'colleague')).status).toBe(403);
    expect((await members()).map(({ id }) => id)).toEqual(expect.arrayContaining([classmate, stranger]));
  });
});
