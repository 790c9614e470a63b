import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Work } from '../../contract/submissions.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('marking without names on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let submission: string;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    submission = await handIn(school);
    await school.as.teacher.send('PATCH', `/assignments/${school.assignment}`, { body: { anonymous: true } });
    const remark = await sayRemark(school, submission);
    await school.as.teacher.send('PUT', `/recordings/${remark}/transcript`, {
      body: { language: 'en', text: 'A word to be found' },
    });
    await school.as.teacher.send('PUT', `/submissions/${submission}/scores/${school.criteria[0]!.id}`, {
      body: { score: { level: school.criteria[0]!.levels[1] } },
    });
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  const everything = async (): Promise<Record<string, string>> => {
    const paths = [
      ...['', '/class', '/feedback', '/as-student', '/earlier'].map((more) => `/submissions/${submission}${more}`),
      ...['', '/returning', '/rubric'].map((more) => `/assignments/${school.assignment}${more}`),
    ];
    const answers = await Promise.all(paths.map((path) => school.as.teacher.send('GET', path)));
    const queue = await school.as.teacher.send('POST', '/waiting', { body: {} });
    const found = await school.as.teacher.send('POST', '/search', { body: { words: 'found' } });
    expect(found.text).toContain(submission);
    return {
      ...Object.fromEntries(paths.map((path, index) => [path, answers[index]!.text])),
      ...{ '/waiting': queue.text, search: found.text },
    };
  };
  const naming = async (): Promise<string[]> =>
    Object.entries(await everything()).flatMap(([path, text]) => (/The author|essay\.docx/.test(text) ? [path] : []));

  it('tells a teacher nowhere whose the work is, and calls it the same everywhere', async () => {
    expect(await naming()).toEqual([]);
    const work = (await school.as.teacher.send('GET', `/submissions/${submission}`)).json as Work;
    expect(work).toMatchObject({ nameless: true, files: [{ name: 'File 1' }] });
    expect(work.folio.files).toMatchObject([{ name: 'File 1', format: 'docx' }]);
    const texts = await everything();
    for (const path of ['/waiting', `/submissions/${submission}/class`, 'search'])
      expect(texts[path]).toContain(work.student.name);
  });

  it('leaves the students their own names', async () => {
    const work = (await school.as.author.send('GET', `/submissions/${submission}`)).json as Work;
    expect(work).toMatchObject({ nameless: false, student: { name: 'The author' }, files: [{ name: 'essay.docx' }] });
  });

  it('ends with the return', async () => {
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: true } });
    expect(await naming()).toContain(`/submissions/${submission}`);
    expect((await school.as.teacher.send('GET', `/assignments/${school.assignment}`)).text).toContain('The author');
  });
});
