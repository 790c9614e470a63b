import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Notices } from '../../contract/notices.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { handIn, sayRemark, startTestSchool, type TestSchool } from '../testing/school.ts';
import { queueDigests } from './digest.ts';

describe.each(bodies)('notices on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let submission: string;
  let remark: string;

  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    submission = await handIn(school);
    remark = await sayRemark(school, submission);
  });
  afterAll(async () => {
    await school.stop();
    await test.remove();
  });

  type Who = 'author' | 'teacher' | 'classmate';
  const read = async (who: Who): Promise<Notices> => (await school.as[who].send('GET', '/notices')).json as Notices;
  const newsOf = async (who: Who) => (await read(who)).news.map(({ kind, count }) => [kind, count]);
  const reply = (who: 'author' | 'teacher') =>
    school.as[who].send('PUT', `/remarks/${remark}/replies/${randomUUID()}`, {
      body: { text: 'Secret words', recording: null },
    });
  const noon = new Date('2026-01-15T12:00:00Z');
  const mails = async (): Promise<{ address: string; body: string }[]> =>
    (await test.db.query('select address, body from mails order by made_at, id')) as {
      address: string;
      body: string;
    }[];
  const digest = async (at = noon): Promise<number> => {
    const before = (await mails()).length;
    await queueDigests(test.db, 'https://school.example', at);
    return (await mails()).length - before;
  };

  it('tell a teacher what came in, and a student nothing before the return', async () => {
    expect([await newsOf('teacher'), await newsOf('author')]).toEqual([[['handedIn', 1]], []]);
    await school.as.teacher.send('PUT', `/submissions/${submission}/returned`, { body: { returned: true } });
    expect([await newsOf('author'), await newsOf('classmate')]).toEqual([[['returned', 1]], []]);
  });

  it('tell both sides of answers, and never what they say', async () => {
    await reply('author');
    await reply('teacher');
    await reply('teacher');
    expect(await newsOf('author')).toContainEqual(['answered', 2]);
    expect(await newsOf('teacher')).toContainEqual(['asked', 1]);
    expect(JSON.stringify([await read('author'), await read('teacher')])).not.toContain('Secret');
  });

  it('are set by each for themselves; what is no hour or no place is refused and changes nothing', async () => {
    const settings = { byMail: true, quiet: { from: 22, to: 6 }, zone: 'Pacific/Auckland' };
    expect((await school.as.author.send('PUT', '/notices', { body: settings })).json).toEqual(settings);
    for (const wrong of [
      { ...settings, zone: 'Nowhere' },
      { ...settings, quiet: { from: 24, to: 6 } },
    ])
      expect((await school.as.author.send('PUT', '/notices', { body: wrong })).status).toBe(400);
    expect((await read('author')).settings).toEqual(settings);
    expect((await read('classmate')).settings).toMatchObject({ byMail: true, zone: 'UTC' });
  });

  it('go by mail to whoever has an address, outside of their quiet hours, once a day', async () => {
    expect(await digest()).toBe(0);
    await test.db.query(`update people set mail = 'author@school.example' where id = $1`, [school.ids.author]);
    // In Auckland it is one at night.
    expect(await digest()).toBe(0);
    expect(await digest(new Date('2026-01-15T20:00:00Z'))).toBe(1);
    expect(await digest(new Date('2026-01-15T20:00:00Z'))).toBe(0);
    const [mail] = await mails();
    expect(mail).toMatchObject({ address: 'author@school.example' });
    expect(mail!.body).toContain('Your work came back: Essay.');
    expect(mail!.body).toContain('2 answers from your teacher: Essay.');
    expect(mail!.body).not.toMatch(/Secret|\d ?%|points|Merit/);
  });

  it('do not tell by mail what was seen, nor whoever wants none', async () => {
    await test.db.query(`update people set mail = 'teacher@school.example' where id = $1`, [school.ids.teacher]);
    expect((await school.as.teacher.send('POST', '/notices/seen')).status).toBe(200);
    expect(await digest()).toBe(0);
    await reply('author');
    await school.as.teacher.send('PUT', '/notices', {
      body: { byMail: false, quiet: { from: 0, to: 0 }, zone: 'UTC' },
    });
    expect(await digest()).toBe(0);
    await school.as.teacher.send('PUT', '/notices', { body: { byMail: true, quiet: { from: 0, to: 0 }, zone: 'UTC' } });
    expect(await digest()).toBe(1);
  });
});
