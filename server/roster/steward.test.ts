import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { startTestSchool, type TestSchool } from '../testing/school.ts';
import { Client } from '../testing/client.ts';

describe.each(bodies)('the steward of a school on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    await test.db.query('update people set steward = true where id = $1', [school.ids.colleague]);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });
  const reset = (who: keyof TestSchool['as'], whom: keyof TestSchool['ids']) =>
    school.as[who].send('POST', `/school/people/${school.ids[whom]}/slip`);

  it('sees everybody with their courses, and nothing about works; nobody else does', async () => {
    const { json, text } = await school.as.colleague.send('GET', '/school/people');
    expect((json as { people: object[] }).people).toHaveLength(5);
    expect((json as { people: object[] }).people[0]).toMatchObject({
      ...{ name: 'The author', login: 'author', steward: false, teaches: [], learns: ['Here'] },
    });
    expect(text).not.toContain('Essay');
    expect((await school.as.teacher.send('GET', '/school/people')).status).toBe(403);
    expect((await school.as.nobody.send('GET', '/school/people')).status).toBe(401);
    expect((await school.as.colleague.send('GET', '/session')).json).toMatchObject({ steward: true });
    expect((await school.as.teacher.send('GET', '/session')).json).not.toHaveProperty('steward');
  });

  it('gives anybody a new way in, whom no single teacher could, but no other steward', async () => {
    const answer = await reset('colleague', 'author');
    const { code } = (answer.json as { slip: { code: string } }).slip;
    const author = new Client(school.address);
    expect((await author.send('POST', '/joining', { body: { code, password: 'a new long one' } })).status).toBe(200);
    expect((await reset('colleague', 'colleague')).status).toBe(403);
    expect((await reset('teacher', 'classmate')).status).toBe(404);
    for (const [path, body] of [
      ['', { name: 'X' }],
      ['/merged', { into: school.ids.classmate }],
    ] as const)
      expect(
        (await school.as.teacher.send(path ? 'POST' : 'PATCH', `/school/people/${school.ids.author}${path}`, { body }))
          .status,
      ).toBe(404);
    // Looking after people gives no sight of their works.
    expect((await school.as.colleague.send('GET', `/assignments/${school.assignment}`)).status).toBe(404);
  });

  it('corrects and merges entries that are several teachers’, and accepts for somebody what they were asked', async () => {
    const { author, classmate, colleague, stranger, teacher } = school.ids;
    const at = (person: string, path = '') => `/school/people/${person}${path}`;
    const send = (method: string, path: string, body?: object) =>
      school.as.colleague.send(method, path, body && { body });
    expect((await send('PATCH', at(author), { name: 'An Author', mail: 'a@example.org' })).status).toBe(200);
    expect((await send('PATCH', at(classmate), { mail: 'A@example.org' })).json).toMatchObject({
      type: 'urn:vivid-margin:mail-or-number-taken',
    });
    expect((await send('PATCH', at(colleague), { name: 'X' })).status).toBe(403);

    await test.db.query("update people set number = '99' where id = $1", [stranger]);
    await school.as.teacher.send('POST', `/courses/${school.course}/roster`, {
      body: { text: 'Name,Number\nThe stranger,99', bringIn: true },
    });
    expect((await send('PUT', at(stranger, `/invitations/${school.course}`))).status).toBe(200);
    expect((await send('PUT', at(stranger, `/invitations/${school.course}`))).status).toBe(404);
    expect((await school.as.stranger.send('GET', `/courses/${school.course}`)).status).toBe(200);

    expect((await send('POST', at(teacher, '/merged'), { into: author })).json).toMatchObject({
      type: 'urn:vivid-margin:merges-teacher',
    });
    expect((await send('POST', at(author, '/merged'), { into: colleague })).status).toBe(404);
    expect((await send('POST', at(classmate, '/merged'), { into: stranger })).status).toBe(200);
    expect((await school.as.classmate.send('GET', '/own-work')).status).toBe(401);
  });
});
