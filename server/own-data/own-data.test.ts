import { unzipSync } from 'fflate';
import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { MEDIA_HOLDERS } from '../purge.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, SOUND, startTestSchool, voice, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('the data of one person on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let returned: string;
  let remark: string;

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    await test.db.query('update people set steward = true where id = $1', [school.ids.colleague]);
    returned = await handIn(school);
    remark = await sayRemark(school, returned);
    await school.as.teacher.send('PUT', `/submissions/${returned}/returned`, { body: { returned: true } });
    const reply = randomUUID();
    await school.as.author.send('PUT', `/remarks/${remark}/replies/${reply}`, {
      body: { text: '', recording: { id: reply, sound: SOUND } },
      file: await voice(),
    });
    await school.as.author.send('PUT', `/assignments/${school.assignment}/typed`, {
      body: { html: '<p>Not yet handed in</p>', over: null },
    });
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  async function archive(who: keyof TestSchool['as'], path = '/own-data'): Promise<Record<string, string>> {
    const response = await school.as[who].fetch(path);
    expect(response.status).toBe(200);
    const files = unzipSync(new Uint8Array(await response.arrayBuffer()));
    return Object.fromEntries(
      Object.entries(files).map(([name, bytes]) => [name, Buffer.from(bytes).toString('latin1')]),
    );
  }
  const count = async (sql: string): Promise<number> =>
    Number((await test.db.query(`select count(*)::int as n from ${sql}`))[0]!.n);

  it('is downloaded by themselves: works, files, drafts, and what came back, with its sounds', async () => {
    const files = await archive('author');
    const names = Object.keys(files).join('\n');
    expect(names).toMatch(/works\/Essay, version 1 \(.+\)\/1 essay\.docx/);
    expect(names.match(/sounds\//g)).toHaveLength(2);
    expect(files['data.json']).toContain('Not yet handed in');
    expect(JSON.parse(files['data.json']!)).toMatchObject({ grades: [{ course: { title: 'Here' } }] });
    const work = JSON.parse(Object.entries(files).find(([name]) => name.endsWith('work.json'))![1]) as {
      feedback: { remarks: { id: string; replies: unknown[] }[] };
    };
    expect(work.feedback.remarks).toMatchObject([{ id: remark, replies: [{}] }]);
    expect(Object.keys(await archive('classmate')).join()).not.toContain('works/');
  });

  it('has nothing of what is with the teacher', async () => {
    await school.as.teacher.send('PUT', `/submissions/${returned}/returned`, { body: { returned: false } });
    const files = await archive('author');
    expect(Object.values(files).join('')).not.toContain(remark);
    expect(Object.keys(files).join()).not.toContain('sounds/');
    await school.as.teacher.send('PUT', `/submissions/${returned}/returned`, { body: { returned: true } });
  });

  it('is exported by the steward alone, and that is written down', async () => {
    const path = `/school/people/${school.ids.author}/data`;
    expect((await school.as.teacher.send('GET', path)).status).toBe(404);
    expect((await school.as.classmate.send('GET', path)).status).toBe(404);
    expect(Object.keys(await archive('colleague', path)).join()).toContain('essay.docx');
    expect((await school.as.colleague.send('GET', '/school/data-records')).json).toMatchObject({
      records: [{ what: 'exported', person: school.ids.author, works: 1, recordings: 1 }],
    });
    expect((await school.as.teacher.send('GET', '/school/data-records')).status).toBe(403);
  });

  const erase = (who: keyof TestSchool['as'], whom: keyof TestSchool['ids'], name: string) =>
    school.as[who].send('POST', `/school/people/${school.ids[whom]}/erased`, { body: { name } });

  it('is not erased under another name, nor by anybody else, nor where it belongs to other people’s works', async () => {
    const before = await count('submissions');
    expect((await erase('teacher', 'author', 'The author')).status).toBe(404);
    expect((await erase('colleague', 'author', 'Somebody')).json).toMatchObject({ title: 'Not erased' });
    expect((await erase('colleague', 'teacher', 'The teacher')).status).toBe(409);
    expect(await count('submissions')).toBe(before);
  });

  it('is erased completely, sounds and files included, and nothing of anybody else', async () => {
    await school.as.classmate.send('PUT', `/assignments/${school.assignment}/typed`, {
      body: { html: '<p>Mine</p>', over: null },
    });
    const people = await count('people');
    expect((await erase('colleague', 'author', 'The author')).json).toMatchObject({
      what: 'erased',
      works: 1,
      recordings: 1,
    });
    expect(await count('people')).toBe(people - 1);
    for (const table of ['submissions', 'remarks', 'replies', 'recordings', 'listenings', 'submission_files'])
      expect([table, await count(table)]).toEqual([table, 0]);
    expect(await count('typed_drafts')).toBe(1);
    const held = MEDIA_HOLDERS.map((holder) => {
      const [table, column] = holder.split('.');
      return `select ${column} from ${table} where ${column} is not null`;
    });
    expect(await count(`media where sha256 not in (${held.join(' union all ')})`)).toBe(0);
    expect((await school.as.author.send('GET', '/own-work')).status).toBe(401);
    expect((await school.as.colleague.send('GET', '/school/data-records')).text).not.toContain('The author');
  });
});
