import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { AssignmentCharts, CourseVoice } from '../../contract/charts.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('charts, on $name', ({ open }) => {
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

  const charts = async (): Promise<AssignmentCharts> =>
    (await school.as.teacher.send('GET', `/assignments/${school.assignment}/charts`)).json as AssignmentCharts;
  const voice = async (): Promise<CourseVoice> =>
    (await school.as.teacher.send('GET', `/courses/${school.course}/voice`)).json as CourseVoice;

  it('are drawn from the newest versions: results, levels, when what was done, and what was said', async () => {
    await handIn(school);
    const submission = await handIn(school);
    await sayRemark(school, submission);
    const [first, second] = school.criteria;
    for (const { id, levels } of [first!, second!])
      await school.as.teacher.send('PUT', `/submissions/${submission}/scores/${id}`, {
        body: { score: { level: levels[1] } },
      });

    const { works, rubric } = await charts();
    expect(rubric.map(({ id }) => id)).toEqual([first!.id, second!.id]);
    expect(works).toMatchObject([
      {
        ...{ submission, student: 'The author', points: 500, possible: 500 },
        levels: { [first!.id]: first!.levels[1], [second!.id]: second!.levels[1] },
      },
    ]);
    // Opened, said, scored twice.
    expect(works[0]!.moments).toHaveLength(4);
    // Judged at the first score; the second came after it.
    expect(Date.parse(works[0]!.moments.at(-2)!)).toBe(Date.parse(works[0]!.judgedAt!));
    const { students } = await voice();
    expect(students.find(({ student }) => student === school.ids.author)).toMatchObject({
      ...{ name: 'The author', seconds: 8, kinds: { repair: 1 }, submission },
    });
    expect(students.find(({ student }) => student === school.ids.classmate)).toMatchObject({
      seconds: 0,
      kinds: {},
      submission: null,
    });
  });

  it('tell nothing of works that are marked without names', async () => {
    await school.as.teacher.send('PATCH', `/assignments/${school.assignment}`, { body: { anonymous: true } });
    expect((await charts()).works).toEqual([]);
    expect((await voice()).students.every(({ seconds, submission }) => seconds === 0 && submission === null)).toBe(
      true,
    );
  });

  it('are nobody’s but the teachers’', async () => {
    for (const path of [`/assignments/${school.assignment}/charts`, `/courses/${school.course}/voice`])
      for (const [who, status] of [
        ['author', 403],
        ['colleague', 404],
        ['nobody', 401],
      ] as const)
        expect((await school.as[who].send('GET', path)).status).toBe(status);
  });
});
