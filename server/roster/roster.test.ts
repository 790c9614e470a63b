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

  it('a student whom the school knows joins under the same account', async () => {
    await test.db.query("update people set number = '99' where id = $1", [school.ids.stranger]);
    const report = await list({ text: 'Name,Number\nThe stranger,99\nSomebody Else,99', bringIn: true });
    expect(fates(report)).toEqual(['join', 'twice']);
    expect(report.added).toEqual([school.ids.stranger]);
    await school.as.teacher.send('POST', at('/roster/taken-out'), { body: { people: report.added } });
    expect(fates(await list({ text: 'Name,Number\nNot The Stranger,99' }))).toEqual(['otherName']);
    // Their account and their other course stay.
    expect((await school.as.stranger.send('GET', '/courses')).json).toMatchObject([{ title: 'Elsewhere' }]);
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
