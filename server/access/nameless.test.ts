import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Work } from '../../contract/submissions.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { createHash, randomUUID } from 'node:crypto';
import { unzipSync } from 'fflate';
import { createApp } from '../app.ts';
import type { Context } from '../context.ts';
import { readSettings } from '../settings.ts';
import { routesOf } from '../testing/routes.ts';
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

  /** All that a teacher can ask about the course, its assignments and one of the works, in whatever way. */
  async function askedEverywhere(work: string): Promise<{ address: string; text: string }[]> {
    const ids: Record<string, string> = { submission: work, assignment: school.assignment, course: school.course };
    const app = createApp({ db: test.db, settings: readSettings({}) } as Context);
    const paths = routesOf(app).flatMap(({ method, path }) =>
      method === 'GET' && !/:(?!submission|assignment|course\b|position)/u.test(path) ? [path] : [],
    );
    const answers = await Promise.all(
      paths.map(async (path) => {
        const address = path.replace(/:(\w+)/gu, (_, name: string) => ids[name] ?? '0');
        return { address, text: (await school.as.teacher.send('GET', address)).text };
      }),
    );
    for (const [address, body] of [
      ['/waiting', {}],
      ['/search', { words: 'found' }],
    ] as const)
      answers.push({ address, text: (await school.as.teacher.send('POST', address, { body })).text });
    return answers;
  }

  it('tells nothing by which a work could be put beside a person, in no answer', async () => {
    const { author } = school.ids;
    await test.db.query("update people set mail = 'author@school.example', number = 'N-4711' where id = $1", [author]);
    const moment = '2026-03-04T05:06:07.089Z';
    await test.db.query('update submissions set handed_in_at = $2 where id = $1', [submission, moment]);
    const md5 = (text: string): string => createHash('md5').update(text).digest('hex');
    const answers = await askedEverywhere(submission);
    const { student } = (await school.as.teacher.send('GET', `/submissions/${submission}`)).json as Work;
    const ofWork = answers.filter(({ text }) =>
      [submission, student.id, student.name].some((one) => text.includes(one)),
    );
    expect(ofWork.length).toBeGreaterThan(5);
    const telling = [
      ...[author, 'The author', 'author@school.example', 'N-4711', '"login":"author"', 'essay.docx'],
      moment.slice(0, 19),
    ];
    const found = ofWork.flatMap(({ address, text }) =>
      telling.filter((one) => text.includes(one)).map((one) => `${address}: ${one}`),
    );
    expect(found).toEqual([]);
    // What anybody could work out from what is known: ids of the assignment, the person, the work.
    const computed = [school.assignment, author, submission].flatMap((one) =>
      [school.assignment, author, submission].flatMap((other) => [md5(one + other), md5(`${one}:${other}`), md5(one)]),
    );
    const plain = student.id.replaceAll('-', '');
    expect(computed.filter((one) => one === plain || one.startsWith(student.name.slice(8).toLowerCase()))).toEqual([]);
  });

  it('gives the file without what it says of its author, to teachers only', async () => {
    const bytes = async (who: 'teacher' | 'author') =>
      new Uint8Array(await (await school.as[who].fetch(`/submissions/${submission}/files/0`)).arrayBuffer());
    const core = (file: Uint8Array): string => Buffer.from(unzipSync(file)['docProps/core.xml']!).toString();
    expect(core(await bytes('author'))).toContain('creator');
    expect(core(await bytes('teacher'))).not.toContain('creator');
    // And keeps every word.
    const body = (file: Uint8Array): string => Buffer.from(unzipSync(file)['word/document.xml']!).toString();
    expect(body(await bytes('teacher'))).toBe(body(await bytes('author')));
    const range = await school.as.teacher.fetch(`/submissions/${submission}/files/0`, { Range: 'bytes=0-3' });
    expect([range.status, await range.text()]).toEqual([206, 'PK\u0003\u0004']);
  });

  it('takes a flag for whoever it is, and keeps the time that they were given', async () => {
    const { student } = (await school.as.teacher.send('GET', `/submissions/${submission}`)).json as Work;
    const until = '2030-01-01T00:00:00.000Z';
    await test.db.query('insert into standings (assignment, student, extended_until, set_by) values ($1, $2, $3, $2)', [
      school.assignment,
      school.ids.author,
      until,
    ]);
    const put = (id: string) =>
      school.as.teacher.send('PUT', `/assignments/${school.assignment}/students/${id}`, {
        body: { flag: 'incomplete', extendedUntil: null },
      });
    expect((await put(school.ids.author)).status).toBe(422);
    expect((await put(student.id)).status).toBe(200);
    const [row] = await test.db.query('select flag, extended_until as until from standings where student = $1', [
      school.ids.author,
    ]);
    expect([row!.flag, new Date(String(row!.until)).toISOString()]).toEqual(['incomplete', until]);
    const { text } = await school.as.teacher.send('GET', `/submissions/${submission}/feedback`);
    expect(text).toContain('"flag":"incomplete"');
    expect(text).not.toContain('2030');
    // In the gradebook, beside the name, the flag of a work is not seen.
    expect((await school.as.teacher.send('GET', `/courses/${school.course}/gradebook`)).text).not.toContain(
      'incomplete',
    );
    await test.db.query('delete from standings');
  });

  it('ends with the return', async () => {
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: true } });
    expect(await naming()).toContain(`/submissions/${submission}`);
    expect((await school.as.teacher.send('GET', `/assignments/${school.assignment}`)).text).toContain('The author');
  });

  it('begins anew with the next version, for those before it, too, and what was said about them', async () => {
    const remark = (
      (await school.as.author.send('GET', `/submissions/${submission}/feedback`)).json as {
        remarks: { id: string }[];
      }
    ).remarks[0]!.id;
    await school.as.author.send('PUT', `/remarks/${remark}/replies/${randomUUID()}`, {
      body: { text: 'An answer to it.', recording: null },
    });
    const next = await handIn(school);
    for (const work of [submission, next])
      for (const { address, text } of await askedEverywhere(work))
        if (text.includes(work)) expect([address, text.includes('The author')]).toEqual([address, false]);
    const before = await school.as.teacher.send('GET', `/submissions/${submission}`);
    expect(before.json).toMatchObject({ nameless: true });
    const { student } = (await school.as.teacher.send('GET', `/submissions/${next}`)).json as Work;
    expect((before.json as Work).student).toEqual(student);
    const said = await school.as.teacher.send('GET', `/submissions/${submission}/feedback`);
    expect(said.text).toContain('An answer to it.');
    expect(said.text).not.toContain(school.ids.author);
  });
});
