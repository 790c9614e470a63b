import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Member, RosterReport } from '../../contract/roster.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, startTestSchool, type TestSchool } from '../testing/school.ts';

describe.each(bodies)('the people of a course on $name', ({ open }) => {
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

  const at = (path: string): string => `/courses/${school.course}${path}`;
  const list = async (body: object, file?: Buffer): Promise<RosterReport> => {
    const answer = await school.as.teacher.send('POST', at('/roster'), {
      body: { text: '', bringIn: false, ...body },
      ...(file && { file, fileName: 'class.csv' }),
    });
    return answer.json as RosterReport;
  };
  const members = async (): Promise<Member[]> =>
    ((await school.as.teacher.send('GET', at('/members'))).json as { members: Member[] }).members;
  const fates = ({ lines }: RosterReport) => lines.map(({ fate, why }) => why ?? fate);

  it('says line by line what a list would do before it does, and takes it back', async () => {
    const before = await members();
    const text = 'Name;Mail;Number\nAroha Ngata;aroha@example.org;7\nThe author;;\nBashir;nowhere@;\nAroha N.;;7';
    const preview = await list({ text });
    expect(fates(preview)).toEqual(['add', 'known', 'noMail', 'twice']);
    expect(preview).toMatchObject({ done: false, added: [] });
    expect(await members()).toEqual(before);

    const { added } = await list({ text, bringIn: true });
    expect(added).toHaveLength(1);
    expect((await members()).find(({ id }) => id === added[0])).toMatchObject({
      ...{ name: 'Aroha Ngata', login: 'aroha-ngata', mail: 'aroha@example.org', number: '7' },
      ...{ teaches: false, cameInAt: null, works: 0 },
    });
    expect(fates(await list({ text, bringIn: true }))).toEqual(['known', 'known', 'noMail', 'twice']);

    const back = await school.as.teacher.send('POST', at('/roster/taken-out'), { body: { people: added } });
    expect(back.json).toEqual({ takenOut: added });
    expect(await members()).toEqual(before);
    expect(await test.db.query("select 1 as one from people where login = 'aroha-ngata'")).toEqual([]);
  });

  it('reads a file in Latin-1 with semicolons, and refuses what is no text', async () => {
    const report = await list({}, Buffer.from('Nachname;Vorname\r\nPeña;Jos\u00e9\r\nM\u00fcller;Zo\u00eb', 'latin1'));
    expect(report.lines.at(-1)).toMatchObject({ name: 'Zoë Müller', fate: 'add' });
    const answer = await school.as.teacher.send('POST', at('/roster'), {
      body: { text: '', bringIn: true },
      ...{ file: Buffer.from([0, 1, 2, 3, 0, 9]), fileName: 'class.csv' },
    });
    expect(answer).toMatchObject({ status: 422, json: { type: 'urn:vivid-margin:list-unreadable' } });
  });

  const coursesOf = async (who: 'stranger' | 'colleague') =>
    ((await school.as[who].send('GET', '/courses')).json as { title: string }[]).map(({ title }) => title);
  const invitations = async (who: 'stranger' | 'colleague') =>
    ((await school.as[who].send('GET', '/invitations')).json as { invitations: object[] }).invitations;
  const answer = (who: 'stranger' | 'colleague' | 'author', accept: boolean) =>
    school.as[who].send('PUT', `/invitations/${school.course}`, { body: { accept } });

  it('whoever has an account is asked, and is in the course when they say yes', async () => {
    await test.db.query("update people set number = '99' where id = $1", [school.ids.stranger]);
    const text = 'Name,Number\nThe stranger,99\nSomebody Else,99';
    expect(fates(await list({ text, bringIn: true }))).toEqual(['invite', 'twice']);
    expect(fates(await list({ text: 'Name,Number\nNot The Stranger,99' }))).toEqual(['otherName']);
    expect(await coursesOf('stranger')).toEqual(['Elsewhere']);
    const { json } = await school.as.teacher.send('GET', at('/members'));
    expect((json as { invited: object[] }).invited).toMatchObject([{ name: 'The stranger', teaches: false }]);
    expect(await invitations('stranger')).toMatchObject([{ title: 'Here', invitedBy: 'The teacher', teaches: false }]);

    // Nobody else answers it, and it can be declined or withdrawn.
    expect((await answer('author', true)).status).toBe(404);
    expect((await answer('stranger', false)).json).toEqual({ invitations: [] });
    expect((await answer('stranger', true)).status).toBe(404);
    const { added } = await list({ text, bringIn: true });
    await school.as.teacher.send('POST', at('/roster/taken-out'), { body: { people: added } });
    expect((await answer('stranger', true)).status).toBe(404);
    expect(await coursesOf('stranger')).toEqual(['Elsewhere']);

    await list({ text, bringIn: true });
    expect((await answer('stranger', true)).status).toBe(200);
    expect(await coursesOf('stranger')).toEqual(['Elsewhere', 'Here']);
    await school.as.teacher.send('POST', at('/roster/taken-out'), { body: { people: [school.ids.stranger] } });
    // Their account and their other course stay.
    expect(await coursesOf('stranger')).toEqual(['Elsewhere']);
  });

  it('a colleague with an account is asked to teach, too', async () => {
    await test.db.query("update people set mail = 'c@example.org' where id = $1", [school.ids.colleague]);
    const invited = await school.as.teacher.send('POST', at('/teachers'), {
      body: { name: 'A colleague', mail: 'c@example.org' },
    });
    expect(invited.json).toEqual({ slip: null, mailed: false, invited: true });
    expect(await coursesOf('colleague')).toEqual(['Elsewhere']);
    expect(await invitations('colleague')).toMatchObject([{ title: 'Here', teaches: true }]);
    await answer('colleague', true);
    expect(await coursesOf('colleague')).toEqual(['Elsewhere', 'Here']);
    await test.db.query('delete from enrolments where person = $1 and course = $2', [
      school.ids.colleague,
      school.course,
    ]);
  });

  it('a teacher changes nobody who was not entered in their course, or has to do with another one', async () => {
    const change = (body: object) =>
      school.as.teacher.send('PATCH', at(`/members/${school.ids.classmate}`), { body: { name: 'Else', ...body } });
    const { course, ids } = school;
    const elsewhere = (await test.db.query('select made_in from people where id = $1', [ids.stranger]))[0]!.made_in;
    const wrong: [string, unknown[]][] = [
      ['update people set made_in = $2 where id = $1', [ids.classmate, elsewhere]],
      ['update people set steward = true where id = $1', [ids.classmate]],
      ["insert into enrolments (course, person, role) values ($2, $1, 'student')", [ids.classmate, elsewhere]],
      ["insert into enrolments (course, person, role) values ($2, $1, 'teacher')", [ids.classmate, elsewhere]],
    ];
    for (const [sql, values] of wrong) {
      await test.db.query(sql, values);
      expect((await change({})).json).toMatchObject({ type: 'urn:vivid-margin:not-only-yours' });
      const slips = await school.as.teacher.send('POST', at('/slips'), { body: { people: [ids.classmate] } });
      expect(slips.status).toBe(403);
      await test.db.query('update people set made_in = $2, steward = false where id = $1', [ids.classmate, course]);
      await test.db.query('delete from enrolments where person = $1 and course = $2', [ids.classmate, elsewhere]);
    }
    expect((await change({ name: 'The classmate' })).status).toBe(200);
  });

  it('two lists at once bring nobody in twice', async () => {
    const both = await Promise.all([0, 1].map(() => list({ text: 'Kateryna Bilyk\nLiang Meixiu', bringIn: true })));
    expect(both.map(({ added }) => added.length).sort()).toEqual([0, 2]);
  });

  it('who has handed in stays, with all their works', async () => {
    await handIn(school);
    const back = await school.as.teacher.send('POST', at('/roster/taken-out'), {
      body: { people: [school.ids.author] },
    });
    expect(back.json).toEqual({ takenOut: [] });
    expect((await members()).find(({ id }) => id === school.ids.author)!.works).toBe(1);
  });

  it('a student is called something else; two cannot have one number, and a teacher’s name is their own', async () => {
    const change = (person: string, body: object) =>
      school.as.teacher.send('PATCH', at(`/members/${person}`), { body });
    expect((await change(school.ids.author, { name: 'An Author', number: '5' })).json).toMatchObject({
      ...{ name: 'An Author', number: '5', login: 'author' },
    });
    expect((await change(school.ids.classmate, { number: '5' })).json).toMatchObject({
      type: 'urn:vivid-margin:mail-or-number-taken',
    });
    expect((await change(school.ids.classmate, { mail: 'x' })).json).toMatchObject({
      type: 'urn:vivid-margin:no-mail',
    });
    for (const person of [school.ids.teacher, school.ids.stranger])
      expect((await change(person, { name: 'Else' })).status).toBe(404);
    expect((await change(school.ids.author, { name: '12' })).status).toBe(400);
  });

  it('nobody else learns who is in the course, and students of it do not either', async () => {
    expect((await school.as.author.send('GET', at('/members'))).status).toBe(403);
    expect((await school.as.colleague.send('GET', at('/members'))).status).toBe(404);
  });
});
