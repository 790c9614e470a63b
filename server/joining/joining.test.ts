import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Member } from '../../contract/roster.ts';
import type { Slip } from '../../contract/joining.ts';
import { Client } from '../testing/client.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { PASSWORD, startTestSchool, type TestSchool } from '../testing/school.ts';
import { readSettings } from '../settings.ts';
import { startServer, type Running } from '../start.ts';
import { makeCode } from './codes.ts';

describe.each(bodies)('coming in on $name', ({ open }) => {
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

  const somebody = () => new Client(school.address);
  const teach = (method: string, path: string, body?: object) =>
    school.as.teacher.send(method, `/courses/${school.course}${path}`, body ? { body } : {});
  const list = async (text: string): Promise<string[]> =>
    ((await teach('POST', '/roster', { text, bringIn: true })).json as { added: string[] }).added;
  const members = async (): Promise<Member[]> =>
    ((await teach('GET', '/members')).json as { members: Member[] }).members;
  const slipOf = async (person: string): Promise<Slip> =>
    ((await teach('POST', '/slips', { people: [person] })).json as { slips: Slip[] }).slips[0]!;
  const look = (code: string) => somebody().send('POST', '/joining/look', { body: { code } });

  it('a join slip says whose it is, opens once, and lets them sign in with what they chose', async () => {
    const [id] = await list('Mirza Hadžić');
    const slip = await slipOf(id!);
    expect(slip).toMatchObject({ name: 'Mirza Hadžić', login: 'mirza-hadzic' });
    expect(slip.code).toMatch(/^([0-9a-z]{4}-){2}[0-9a-z]{4}$/u);
    const typed = slip.code.replaceAll('-', ' ').replaceAll('0', 'O').toUpperCase();
    expect((await look(typed)).json).toMatchObject({ opens: 'person', name: 'Mirza Hadžić', login: 'mirza-hadzic' });
    const student = somebody();
    const short = await student.send('POST', '/joining', { body: { code: slip.code, password: 'short' } });
    expect(short.status).toBe(400);
    const joined = await student.send('POST', '/joining', { body: { code: typed, password: PASSWORD } });
    expect(joined.json).toMatchObject({ person: { id, learns: true, teaches: false }, login: 'mirza-hadzic' });
    expect((await student.send('GET', `/courses/${school.course}`)).status).toBe(200);
    expect((await look(slip.code)).json).toMatchObject({ type: 'urn:vivid-margin:code-used' });
    const again = await somebody().send('POST', '/joining', { body: { code: slip.code, password: PASSWORD } });
    expect(again.status).toBe(409);
    const signedIn = await somebody().send('POST', '/session', { body: { login: 'mirza-hadzic', password: PASSWORD } });
    expect(signedIn.status).toBe(200);
    expect((await members()).find((one) => one.id === id)!.cameInAt).not.toBeNull();
  });

  it('before that nobody signs in, and a new slip makes the old one worthless', async () => {
    const [id] = await list('Dorji Wangmo');
    const [first, second] = [await slipOf(id!), await slipOf(id!)];
    expect((await look(first.code)).status).toBe(404);
    await test.db.query("update codes set expires_at = now() - interval '1 minute' where person = $1", [id]);
    expect((await look(second.code)).json).toMatchObject({ type: 'urn:vivid-margin:code-expired' });
    for (const password of ['', 'password', 'null'])
      expect(
        (await somebody().send('POST', '/session', { body: { login: 'dorji-wangmo', password } })).status,
      ).toBeGreaterThanOrEqual(400);
  });

  it('a new slip for who forgot their password ends all they were signed in to', async () => {
    const slip = await slipOf(school.ids.classmate);
    expect((await school.as.classmate.send('GET', `/courses/${school.course}`)).status).toBe(200);
    const body = { code: slip.code, password: 'another long one' };
    expect((await somebody().send('POST', '/joining', { body })).status).toBe(200);
    expect((await school.as.classmate.send('GET', `/courses/${school.course}`)).status).toBe(401);
  });

  it('a slip is made only for people of the course, and not for a teacher who is in', async () => {
    expect((await teach('POST', '/slips', { people: [school.ids.stranger] })).status).toBe(404);
    expect((await teach('POST', '/slips', { people: [school.ids.teacher] })).status).toBe(403);
  });

  it('nobody gets at an account by bringing somebody of another course into their own', async () => {
    await test.db.query("update people set number = '77', steward = true where id = $1", [school.ids.stranger]);
    await list('Name,Number\nThe stranger,77');
    await school.as.stranger.send('PUT', `/invitations/${school.course}`, { body: { accept: true } });
    const slip = () => teach('POST', '/slips', { people: [school.ids.stranger] });
    expect((await slip()).json).toMatchObject({ type: 'urn:vivid-margin:slip-elsewhere' });
    await test.db.query('update people set steward = false where id = $1', [school.ids.stranger]);
    expect((await slip()).status).toBe(403);
    // The steward looks after everybody's account.
    await test.db.query('update people set steward = true where id = $1', [school.ids.teacher]);
    expect((await slip()).status).toBe(200);
    await test.db.query('update people set steward = false where id = $1', [school.ids.teacher]);
  });

  it('with the code of a course one comes in under one’s own name, and under nobody else’s', async () => {
    const [id] = await list('Eleni Marathou');
    const { code } = (await teach('POST', '/code')).json as { code: string };
    expect((await look(code)).json).toEqual({
      ...{ opens: 'course', school: '', course: 'Here', name: null, login: null },
    });
    const come = (name?: string) => somebody().send('POST', '/joining', { body: { code, password: PASSWORD, name } });
    expect((await come()).status).toBe(422);
    expect((await come('eleni marathou')).json).toMatchObject({ person: { id }, login: 'eleni-marathou' });
    expect((await come('Eleni Marathou')).status).toBe(409);
    expect((await come('The author')).status).toBe(409);
    expect((await come('Farid Noorzai')).json).toMatchObject({ login: 'farid-noorzai', person: { learns: true } });
    await teach('DELETE', '/code');
    expect((await come('Giulia Ferrante')).status).toBe(404);
  });

  it('whoever keeps guessing keeps nobody behind the same address out', async () => {
    const { code } = (await teach('POST', '/code')).json as { code: string };
    const tries = await Promise.all(Array.from({ length: 100 }, (_, n) => look(`abcd-efgh-j${n + 100}`)));
    expect(new Set(tries.map(({ status }) => status))).toEqual(new Set([404]));
    expect((await look(code)).status).toBe(200);
  });

  it('another teacher is invited, comes in with a slip, and may not be made twice', async () => {
    const { slip } = (await teach('POST', '/teachers', { name: 'Ruari Castellane', mail: 'ruari@example.org' }))
      .json as {
      slip: Slip;
    };
    const teacher = somebody();
    const joined = await teacher.send('POST', '/joining', { body: { code: slip.code, password: PASSWORD } });
    expect(joined.json).toMatchObject({ person: { teaches: true } });
    expect((await teacher.send('GET', `/courses/${school.course}/members`)).status).toBe(200);
    const twice = await teach('POST', '/teachers', { name: 'R. C.', mail: 'Ruari@example.org' });
    expect(twice.json).toMatchObject({ detail: 'Ruari Castellane teaches this course already.' });
    const wrong = await teach('POST', '/teachers', { name: 'R. C.', mail: 'nowhere' });
    expect(wrong.json).toMatchObject({ type: 'urn:vivid-margin:no-mail' });
  });
});

describe.each(bodies)('an empty school on $name', ({ open }) => {
  let test: TestDatabase;
  let running: Running;
  beforeAll(async () => {
    test = await open();
    running = await startServer(test.db, { ...readSettings({}), port: 0 });
  });
  afterAll(async () => {
    await running.stop();
    await test.remove();
  });

  it('is opened once, by whoever has its address, and led on to a course and an assignment', async () => {
    const { code } = await test.db.transaction((tx) => makeCode(tx, { opens: 'school' }, null));
    const teacher = new Client(running.address);
    expect((await teacher.send('GET', '/school')).json).toMatchObject({ empty: true });
    const body = {
      code,
      school: 'Low Water School',
      zone: 'Pacific/Auckland',
      name: 'Tamsin Adeyemi',
      password: PASSWORD,
    };
    const wrong = await teacher.send('POST', '/school', { body: { ...body, code: 'aaaa-bbbb-cccc' } });
    expect(wrong.status).toBe(404);
    const both = await Promise.all(
      [teacher, new Client(running.address)].map((one) => one.send('POST', '/school', { body })),
    );
    expect(both.map(({ status }) => status).sort()).toEqual([200, 404]);
    const first = both.find(({ status }) => status === 200)!;
    expect(first.json).toMatchObject({ person: { name: 'Tamsin Adeyemi', teaches: true }, login: 'tamsin-adeyemi' });
    expect((await teacher.send('GET', '/school')).json).toMatchObject({
      empty: false,
      name: 'Low Water School',
      zone: 'Pacific/Auckland',
    });

    const steward = new Client(running.address);
    await steward.send('POST', '/session', { body: { login: 'tamsin-adeyemi', password: PASSWORD } });
    expect((await steward.send('POST', '/courses', { body: { title: '  ' } })).status).toBe(400);
    const { id: course } = (await steward.send('POST', '/courses', { body: { title: 'Reading the Shore' } })).json as {
      id: string;
    };
    const made = await steward.send('POST', `/courses/${course}/assignments`, { body: { title: 'A walk' } });
    expect((await steward.send('GET', `/courses/${course}`)).json).toMatchObject({
      ...{ title: 'Reading the Shore', teachers: ['Tamsin Adeyemi'], notIn: 0 },
      assignments: [{ id: (made.json as { id: string }).id, title: 'A walk', open: false, dueAt: null }],
    });
    const nobody = new Client(running.address);
    expect((await nobody.send('PATCH', '/school', { body: { name: 'x', zone: 'UTC' } })).status).toBe(401);
    const changed = { name: 'High Water School', zone: 'Europe/Lisbon' };
    expect((await steward.send('PATCH', '/school', { body: { ...changed, zone: 'Nowhere' } })).status).toBe(400);
    expect((await steward.send('PATCH', '/school', { body: changed })).status).toBe(200);
    expect((await teacher.send('GET', '/school')).json).toMatchObject(changed);
    // By the school's clock until there is one of their own.
    expect((await steward.send('GET', '/notices')).json).toMatchObject({ settings: { zone: 'Europe/Lisbon' } });
    expect((await steward.send('PUT', '/session/zone', { body: { zone: 'Asia/Tokyo' } })).status).toBe(200);
    expect((await steward.send('GET', '/session')).json).toMatchObject({ zone: 'Asia/Tokyo', steward: true });
    expect((await steward.send('GET', '/notices')).json).toMatchObject({ settings: { zone: 'Asia/Tokyo' } });
    const second = await new Client(running.address).send('POST', '/school', { body });
    expect(second.status).toBe(404);
  });
});
