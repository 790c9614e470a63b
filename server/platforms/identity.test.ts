import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RosterReport } from '../../contract/roster.ts';
import { updateMember } from '../roster/queries.ts';
import { Client } from '../testing/client.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { startTestSchool, type TestSchool } from '../testing/school.ts';
import { linkPerson } from './arrive.ts';
import { CLAIM, SCOPE } from './claims.ts';
import { isPublic } from './public-address.ts';
import { insertPlatform } from './queries.ts';
import { launchClaims, startStandIn, type StandIn, type StandInCourse } from './stand-in/stand-in.ts';

/** A platform in which anybody may have chosen any address and any name. */
const COURSE: StandInCourse = {
  id: 'shore',
  title: 'Shore, over there',
  people: [
    { id: 't1', name: 'The teacher', mail: '', teaches: true },
    { id: 'thief', name: 'The teacher', mail: 'teacher@school.example', teaches: false },
    { id: 'boss', name: 'The colleague', mail: 'colleague@school.example', teaches: false },
    { id: 's1', name: 'The author', mail: 'author@school.example', teaches: false },
    { id: 'namesake', name: 'The classmate', mail: '', teaches: false },
    { id: 'new-teacher', name: 'Somebody New', mail: 'new@school.example', teaches: true },
  ],
};
const MAILED = ['teacher', 'colleague', 'author'] as const;

describe.each(bodies)('who somebody of a platform is, on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let standIn: StandIn;
  let platform: string;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    standIn = await startStandIn({ port: 0, tool: school.address }, [COURSE]);
    ({ id: platform } = await insertPlatform(test.db, standIn.platform));
    for (const name of MAILED) await updateMember(test.db, school.ids[name], { mail: `${name}@school.example` });
    await test.db.query('update people set steward = true where id = $1', [school.ids.colleague]);
    await linkPerson(test.db, platform, 't1', school.ids.teacher);
  });
  afterAll(async () => {
    await standIn.stop();
    await school.stop();
    await test.remove();
  });
  const trust = (trusted: boolean) => test.db.query('update platforms set trusts_mail = $1', [trusted]);
  const door = (path: string, init: RequestInit = {}): Promise<Response> =>
    fetch(`${school.address}/lti${path}`, { redirect: 'manual', ...init });

  /** Somebody opens the tool there. @param more claims that are other than usual */
  async function launch(id: string, more: Record<string, unknown> = {}, cookies = ''): Promise<Response> {
    const query = new URLSearchParams({ iss: standIn.address, login_hint: id, lti_message_hint: COURSE.id });
    const login = await door(`/login?${query.toString()}`);
    const to = new URL(login.headers.get('Location')!);
    const person = COURSE.people.find((one) => one.id === id)!;
    const claims: Record<string, unknown> = {
      ...launchClaims({ address: standIn.address, course: COURSE, person }),
      ...{ iss: standIn.address, aud: 'vivid-margin', sub: id, nonce: to.searchParams.get('nonce') },
      ...more,
    };
    return door('/launch', {
      method: 'POST',
      body: new URLSearchParams({ id_token: await standIn.sign(claims), state: to.searchParams.get('state')! }),
      headers: { Cookie: `${login.headers.get('Set-Cookie')!.split(';')[0]!}; ${cookies}` },
    });
  }
  const cookieIn = (response: Response, name: string): string | undefined =>
    new RegExp(`${name}=([^;]+);`, 'u').exec(response.headers.get('Set-Cookie') ?? '')?.[1];
  async function personIn(response: Response): Promise<string | undefined> {
    const token = cookieIn(response, 'vivid_session');
    if (token === undefined) return undefined;
    const { json } = await new Client(school.address, token).send('GET', '/session');
    return (json as { person: { id: string } }).person.id;
  }
  const links = async (): Promise<Record<string, unknown>> =>
    Object.fromEntries(
      (await test.db.query('select subject, person from platform_people')).map(({ subject, person }) => [
        String(subject),
        person,
      ]),
    );
  const members = async (bringIn: boolean): Promise<RosterReport> =>
    (await school.as.teacher.send('POST', `/courses/${school.course}/platform/members`, { body: { bringIn } }))
      .json as RosterReport;

  it('is refused from another deployment than the first, and where the claims are not those of a launch', async () => {
    expect((await launch('t1')).status).toBe(303);
    const wrong: [object, RegExp][] = [
      [{ [CLAIM.deployment]: 'another' }, /another deployment/u],
      [{ [CLAIM.deployment]: undefined }, /deployment_id/u],
      [{ [CLAIM.link]: undefined }, /resource_link/u],
      [{ [CLAIM.link]: { title: 'no id' } }, /resource_link/u],
      [{ [CLAIM.context]: [] }, /context/u],
      [{ [CLAIM.roles]: 'Instructor' }, /roles/u],
      [{ [CLAIM.grades]: { scope: 'all', lineitems: 7 } }, /endpoint/u],
    ];
    for (const [more, why] of wrong) {
      const answer = await launch('t1', more as Record<string, unknown>);
      expect([answer.status, answer.headers.get('Content-Type')]).toEqual([403, 'text/html; charset=utf-8']);
      expect(await answer.text()).toMatch(why);
    }
    const broken = await door('/launch', {
      method: 'POST',
      headers: { 'Content-Type': 'application/x-www-form-urlencoded' },
      body: 'x'.repeat(200_000),
    });
    expect([broken.status, broken.headers.get('Content-Type')]).toEqual([413, 'text/html; charset=utf-8']);
  });

  it('keeps what a database cannot out of names', async () => {
    const answer = await launch('namesake', { name: 'Nul\u0000 and \ud800 half', sub: 'odd' });
    expect(answer.status).toBe(303);
  });

  it.each([true, false])('is never a teacher or a steward because of an address (trusted: %s)', async (trusted) => {
    await trust(trusted);
    for (const id of ['thief', 'boss']) {
      const answer = await launch(id);
      expect([answer.headers.get('Location'), await personIn(answer)]).toEqual(['/arrived', undefined]);
    }
    expect(await links()).toMatchObject({ t1: school.ids.teacher });
    expect(Object.values(await links())).not.toContain(school.ids.colleague);
  });

  it('gets an account of their own where they say that they are new, without the address that is somebody’s', async () => {
    const key = cookieIn(await launch('thief'), 'vivid_arrival')!;
    const at = (path: string, method: string) =>
      fetch(`${school.address}/api/platform-arrival${path}`, { method, headers: { Cookie: `vivid_arrival=${key}` } });
    expect(await (await at('', 'GET')).json()).toMatchObject({ name: 'The teacher', known: true, teaches: false });
    const made = await at('/new', 'POST');
    const person = await personIn(made);
    expect([made.status, person === school.ids.teacher]).toEqual([200, false]);
    const [row] = await test.db.query('select mail from people where id = $1', [person]);
    expect(row!.mail).toBeNull();
    // It is answered once.
    expect([(await at('/new', 'POST')).status, (await at('', 'GET')).status]).toEqual([404, 404]);
  });

  it('is whoever is signed in here and says so, and stays it', async () => {
    const arrived = cookieIn(await launch('new-teacher'), 'vivid_arrival')!;
    expect(arrived).toBeDefined();
    const session = await signedIn('colleague');
    const link = (key: string) =>
      fetch(`${school.address}/api/platform-arrival/link`, {
        method: 'POST',
        headers: { Cookie: `vivid_arrival=${key}; vivid_session=${session}` },
      });
    expect((await link('guessed')).status).toBe(404);
    expect((await link(arrived)).status).toBe(200);
    expect(await personIn(await launch('new-teacher'))).toBe(school.ids.colleague);
    // A link cannot be taken over by somebody else.
    await linkPerson(test.db, platform, 'new-teacher', school.ids.stranger);
    expect((await links())['new-teacher']).toBe(school.ids.colleague);
  });

  const signedIn = async (login: string): Promise<string> => {
    const answer = await fetch(`${school.address}/api/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify({ login, password: 'a long password' }),
    });
    return cookieIn(answer, 'vivid_session')!;
  };

  it('ends the session that was there before', async () => {
    const before = await signedIn('classmate');
    const [ending] = await test.db.query(
      "select encode(token_hash, 'hex') as hash from sessions where person = $1 order by opened_at desc limit 1",
      [school.ids.classmate],
    );
    // As browsers do it: from another site's page no cookie of the session comes along, but the one that can end it does.
    await launch('t1', {}, `vivid_ending=${String(ending!.hash)}`);
    const { json } = await new Client(school.address, before).send('GET', '/session');
    expect((json as { person: unknown }).person).toBeNull();
  });

  it('is not who a class list names them after: neither by name, nor by address without trust, nor a teacher', async () => {
    const context = (await launch('t1')).headers.get('Location')!.split('/').at(-1)!;
    await test.db.query('delete from platform_roles where person <> $1', [school.ids.teacher]);
    await school.as.teacher.send('PUT', `/launched/${context}`, { body: { course: school.course } });
    await test.db.query("delete from platform_people where subject <> 't1'");
    await trust(false);
    const looked = await members(false);
    const fateOf = (name: string) => looked.lines.filter((line) => line.name === name).map(({ fate }) => fate);
    expect([fateOf('The author'), fateOf('The classmate')]).toEqual([['known'], ['known']]);
    // The steward has an account, and is only asked.
    expect(fateOf('The colleague')).toEqual(['invite']);
    await members(true);
    expect(await links()).toEqual({ t1: school.ids.teacher });
    expect((await school.as.colleague.send('GET', `/courses/${school.course}`)).status).toBe(404);

    await trust(true);
    await members(true);
    expect(await links()).toEqual({ t1: school.ids.teacher, s1: school.ids.author });
  });

  it('is asked for no more than a launch has granted', async () => {
    await launch('t1', { [CLAIM.grades]: { scope: [SCOPE.scores], lineitems: `${standIn.address}/items` } });
    const refused = await school.as.teacher.send('POST', `/courses/${school.course}/platform/grades`, {
      body: { assignment: school.assignment, since: new Date().toISOString() },
    });
    expect(refused.status).toBe(409);
    await launch('t1', { [CLAIM.members]: undefined });
    const list = await school.as.teacher.send('POST', `/courses/${school.course}/platform/members`, {
      body: { bringIn: false },
    });
    expect(list.status).toBe(409);
    await launch('t1');
    await members(false);
    expect(standIn.scopes.at(-1)).toBe(SCOPE.members);
  });

  it('is offered a window of its own within the platform’s page, and nobody else may frame us', async () => {
    const query = new URLSearchParams({ iss: standIn.address, login_hint: 't1', lti_message_hint: COURSE.id });
    const framed = await door(`/login?${query.toString()}`, { headers: { 'Sec-Fetch-Dest': 'iframe' } });
    const text = await framed.text();
    expect(framed.headers.get('Content-Security-Policy')).toContain(`frame-ancestors ${standIn.address}`);
    expect(framed.headers.get('X-Frame-Options')).toBeNull();
    const inside = /href="([^"]+)" target="_blank"/u.exec(text)![1]!.replaceAll('&#38;', '&');
    const window = await fetch(`${school.address}${inside}`, { redirect: 'manual' });
    expect(window.headers.get('Location')).toContain(`${standIn.address}/auth`);
    const strange = new URLSearchParams({ iss: 'https://elsewhere.example', login_hint: 'x' });
    const other = await door(`/login?${strange.toString()}`, { headers: { 'Sec-Fetch-Dest': 'iframe' } });
    expect([other.status, other.headers.get('Content-Security-Policy')]).toEqual([
      404,
      expect.stringContaining("frame-ancestors 'none'"),
    ]);
  });

  it('begins only so many sign-ins from one network within a minute', async () => {
    const query = new URLSearchParams({ iss: standIn.address, login_hint: 't1' }).toString();
    const answers = await Promise.all(Array.from({ length: 260 }, () => door(`/login?${query}`)));
    const late = answers.find(({ status }) => status === 429)!;
    expect(late.headers.get('Retry-After')).toMatch(/^\d+$/u);
    expect(await late.text()).toContain('<h1>Too many sign-ins</h1>');
  });
});

describe('addresses of platforms', () => {
  it.each([
    ...['127.0.0.1', '10.0.0.8', '172.16.3.1', '192.168.1.1', '169.254.169.254', '100.64.0.1', '0.0.0.0'],
    ...['::1', 'fe80::1', 'fd00::5', '::ffff:127.0.0.1', '::ffff:10.0.0.1', '64:ff9b::7f00:1'],
  ])('%s is not a public one', (address) => {
    expect(isPublic(address)).toBe(false);
  });
  it.each(['93.184.216.34', '2606:2800:220:1:248:1893:25c8:1946'])('%s is', (address) => {
    expect(isPublic(address)).toBe(true);
  });

  it('are refused where they lead inside, unless a setting allows it', async () => {
    const test = await bodies[0]!.open();
    const school = await startTestSchool(test.db, [], { privatePlatforms: false });
    try {
      await test.db.query('update people set steward = true where id = $1', [school.ids.teacher]);
      const entered = (host: string) => ({
        ...{ name: 'P', issuer: host, clientId: 'c', authAddress: 'https://93.184.216.34/auth', trustsMail: false },
        ...{ tokenAddress: `https://${host}/token`, keysAddress: 'https://93.184.216.34/keys' },
      });
      const enter = async (host: string) =>
        (await school.as.teacher.send('POST', '/platforms', { body: entered(host) })).status;
      for (const host of ['localhost', '127.0.0.1', '[::1]', '192.168.0.10', '0x7f000001', '2130706433', '127.1'])
        expect([host, await enter(host)]).toEqual([host, 422]);
      expect(await enter('93.184.216.34')).toBe(200);
    } finally {
      await school.stop();
      await test.remove();
    }
  });
});
