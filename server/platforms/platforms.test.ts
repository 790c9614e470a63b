import { createHash } from 'node:crypto';
import { generateKeyPair } from 'jose';
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest';
import type { z } from 'zod';
import { PLAIN_MARKING } from '#core/grading';
import type { Problem } from '../../contract/problem.ts';
import type { readCoursePlatform, SentState } from '../../contract/platforms.ts';
import type { RosterReport } from '../../contract/roster.ts';
import { updateMember } from '../roster/queries.ts';
import { Client } from '../testing/client.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { startTestSchool, type TestSchool } from '../testing/school.ts';
import { linkPerson } from './arrive.ts';
import { insertPlatform } from './queries.ts';
import { launchClaims, startStandIn, type StandIn, type StandInCourse } from './stand-in/stand-in.ts';

const COURSE: StandInCourse = {
  id: 'shore',
  title: 'Shore, over there',
  people: [
    { id: 't1', name: 'The teacher', mail: 'teacher@there.example', teaches: true },
    { id: 's1', name: 'The author', mail: 'author@there.example', teaches: false },
    { id: 's2', name: 'Neo Lund', mail: 'neo@there.example', teaches: false },
    ...Array.from({ length: 30 }, (_, n) => ({ id: `x${n}`, name: `Pupil ${n}`, mail: '', teaches: false })),
  ],
};

interface Begun {
  state: string;
  nonce: string;
  cookie: string;
}

describe.each(bodies)('a learning platform, on $name', ({ open }) => {
  let test: TestDatabase;
  let school: TestSchool;
  let standIn: StandIn;
  beforeAll(async () => {
    test = await open();
    school = await startTestSchool(test.db);
    standIn = await startStandIn({ port: 0, tool: school.address }, [COURSE]);
    const { id } = await insertPlatform(test.db, standIn.platform);
    await linkPerson(test.db, id, 't1', school.ids.teacher);
    await updateMember(test.db, school.ids.teacher, { mail: 'teacher@there.example' });
    await updateMember(test.db, school.ids.author, { mail: 'author@there.example' });
  });
  afterAll(async () => {
    await standIn.stop();
    await school.stop();
    await test.remove();
  });

  const door = (path: string, init: RequestInit = {}): Promise<Response> =>
    fetch(`${school.address}/lti${path}`, { redirect: 'manual', ...init });
  const personOf = (id: string) => COURSE.people.find((one) => one.id === id)!;

  async function begin(id: string): Promise<Begun> {
    const query = new URLSearchParams({
      ...{ iss: standIn.address, login_hint: id, client_id: 'vivid-margin', lti_message_hint: COURSE.id },
      target_link_uri: `${school.address}/lti/launch`,
    });
    const response = await door(`/login?${query.toString()}`);
    expect(response.status).toBe(302);
    const to = new URL(response.headers.get('Location')!);
    expect(to.origin + to.pathname).toBe(`${standIn.address}/auth`);
    expect(Object.fromEntries(to.searchParams)).toMatchObject({
      ...{ scope: 'openid', response_type: 'id_token', response_mode: 'form_post', prompt: 'none' },
      ...{ client_id: 'vivid-margin', redirect_uri: `${school.address}/lti/launch`, login_hint: id },
    });
    const cookie = response.headers.get('Set-Cookie')!.split(';')[0]!;
    return { state: to.searchParams.get('state')!, nonce: to.searchParams.get('nonce')!, cookie };
  }
  const claimsOf = (id: string, nonce: string, more: object = {}): object => ({
    ...launchClaims({ address: standIn.address, course: COURSE, person: personOf(id) }),
    ...{ iss: standIn.address, aud: 'vivid-margin', sub: id, nonce, ...more },
  });
  const land = (token: string, { state, cookie }: Pick<Begun, 'state' | 'cookie'>): Promise<Response> =>
    door('/launch', {
      method: 'POST',
      body: new URLSearchParams({ id_token: token, state }),
      headers: { Cookie: cookie, Origin: standIn.address },
    });
  async function launch(id: string): Promise<{ client: Client; to: string }> {
    const begun = await begin(id);
    const response = await land(await standIn.sign(claimsOf(id, begun.nonce)), begun);
    expect(response.status).toBe(303);
    const token = /vivid_session=([^;]+)/u.exec(response.headers.get('Set-Cookie')!)![1]!;
    return { client: new Client(school.address, token), to: response.headers.get('Location')! };
  }
  const refused = async (token: string, begun: Begun): Promise<string> => {
    const response = await land(token, begun);
    const text = await response.text();
    expect([response.status, response.headers.get('Set-Cookie')?.includes('vivid_session=')]).toEqual([403, false]);
    return /<p>(.*?)<\/p>/u.exec(text)![1]!;
  };

  it('brings somebody in by its own page, from the first press to the course', async () => {
    // As a browser goes: the page of the platform, our door, its door, our launch.
    const front = await (await fetch(standIn.address)).text();
    expect(front).toContain('Open Vivid Margin as The teacher');
    const login = await door(
      `/login?${new URLSearchParams({ iss: standIn.address, login_hint: 't1', lti_message_hint: 'shore' }).toString()}`,
    );
    const auth = await (await fetch(login.headers.get('Location')!)).text();
    const value = (name: string): string => new RegExp(`name="${name}" value="([^"]+)"`, 'u').exec(auth)![1]!;
    const cookie = login.headers.get('Set-Cookie')!.split(';')[0]!;
    const landed = await land(value('id_token'), { state: value('state'), cookie });
    expect(landed.headers.get('Location')).toMatch(/^\/launched\/[0-9a-f-]{36}$/u);
  });

  it('is refused where anything of its token is not right, and lets nobody in', async () => {
    const other = await generateKeyPair('RS256');
    const past = Math.floor(Date.now() / 1000) - 4000;
    const wrong: [RegExp, (begun: Begun) => Promise<string>][] = [
      [/meant for another tool/u, ({ nonce }) => standIn.sign(claimsOf('t1', nonce, { aud: 'somebody-else' }))],
      [/“iss” is not/u, ({ nonce }) => standIn.sign(claimsOf('t1', nonce, { iss: 'https://elsewhere.example' }))],
      [/expired/u, ({ nonce }) => standIn.sign(claimsOf('t1', nonce), { expiresIn: '-5m' })],
      [/made for another sign-in/u, () => standIn.sign(claimsOf('t1', 'another'))],
      [/signature is not/u, ({ nonce }) => standIn.sign(claimsOf('t1', nonce), { key: other.privateKey })],
      [
        /key that the platform does not/u,
        ({ nonce }) => standIn.sign(claimsOf('t1', nonce), { key: other.privateKey, kid: 'old' }),
      ],
      [
        /what a launch has to say/u,
        ({ nonce }) =>
          standIn.sign(claimsOf('t1', nonce, { 'https://purl.imsglobal.org/spec/lti/claim/version': '1.1' })),
      ],
      [/another tool/u, ({ nonce }) => standIn.sign(claimsOf('t1', nonce, { azp: 'somebody-else' }))],
      [
        /what you are called/u,
        ({ nonce }) => standIn.sign(claimsOf('t1', nonce, { name: '', given_name: '', family_name: '' })),
      ],
      [
        /signature is not/u,
        async ({ nonce }) => {
          const [head, , signature] = (await standIn.sign(claimsOf('t1', nonce))).split('.');
          const forged = Buffer.from(
            JSON.stringify({ ...claimsOf('s1', nonce), exp: past + 8000, iat: past }),
          ).toString('base64url');
          return `${head}.${forged}.${signature}`;
        },
      ],
      [
        /signature is not/u,
        ({ nonce }) => {
          const part = (value: object): string => Buffer.from(JSON.stringify(value)).toString('base64url');
          return Promise.resolve(
            `${part({ alg: 'none' })}.${part({ ...claimsOf('t1', nonce), exp: past + 8000, iat: past + 3990 })}.`,
          );
        },
      ],
    ];
    for (const [why, tokenOf] of wrong) {
      const begun = await begin('t1');
      expect(await refused(await tokenOf(begun), begun)).toMatch(why);
    }
  });

  it('is refused when it is sent twice, from another browser, or out of nothing', async () => {
    const begun = await begin('t1');
    const token = await standIn.sign(claimsOf('t1', begun.nonce));
    expect((await land(token, begun)).status).toBe(303);
    expect(await refused(token, begun)).toContain('used already');
    const again = await begin('t1');
    const stolen = await standIn.sign(claimsOf('t1', again.nonce));
    expect(await refused(stolen, { ...again, cookie: 'vivid_platform_state=other' })).toContain('another browser');
    // And with that the sign-in is over for everybody.
    expect(await refused(stolen, again)).toContain('used already');
    expect((await door('/launch', { method: 'POST', body: new URLSearchParams({}) })).status).toBe(403);
    const strange = new URLSearchParams({ iss: 'https://elsewhere.example', login_hint: 'x' });
    expect((await door(`/login?${strange.toString()}`)).status).toBe(404);
    const evil = await door('/launch', { method: 'POST', body: new URLSearchParams({ error: '<script>' }) });
    expect(await evil.text()).not.toContain('<script>');
  });

  it('can be on its way twice in one browser', async () => {
    const [one, other] = [await begin('t1'), await begin('t1')];
    const cookie = `${one.cookie}; ${other.cookie}`;
    for (const [id, begun] of [
      ['t1', one],
      ['t1', other],
    ] as const)
      expect((await land(await standIn.sign(claimsOf(id, begun.nonce)), { ...begun, cookie })).status).toBe(303);
  });

  it('knows students by their address where it is trusted, and else asks them', async () => {
    await test.db.query('update platforms set trusts_mail = false');
    const begun = await begin('s1');
    const asked = await land(await standIn.sign(claimsOf('s1', begun.nonce)), begun);
    expect(asked.headers.get('Location')).toBe('/arrived');
    expect(asked.headers.get('Set-Cookie')).not.toContain('vivid_session=');
    await test.db.query('update platforms set trusts_mail = true');
    const { client: author } = await launch('s1');
    expect(((await author.send('GET', '/session')).json as { person: { id: string } }).person.id).toBe(
      school.ids.author,
    );
  });

  describe('connected with a course', () => {
    let context: string;
    beforeAll(async () => {
      const { client, to } = await launch('t1');
      context = to.split('/').at(-1)!;
      const student = (await launch('s1')).client;
      expect((await student.send('PUT', `/launched/${context}`, { body: { course: null } })).status).toBe(403);
      expect((await school.as.stranger.send('GET', `/launched/${context}`)).status).toBe(404);
      expect((await client.send('GET', `/launched/${context}`)).json).toMatchObject({
        ...{ title: COURSE.title, course: null, teaches: true },
        courses: [{ id: school.course }],
      });
      const foreign = (await test.db.query("select id from courses where title = 'Elsewhere'"))[0]!.id;
      expect((await client.send('PUT', `/launched/${context}`, { body: { course: foreign } })).status).toBe(404);
      const answer = await client.send('PUT', `/launched/${context}`, { body: { course: school.course } });
      expect(answer.json).toEqual({ course: school.course });
    });
    beforeEach(() => standIn.items.splice(0));

    const at = `platform`;
    const members = (bringIn: boolean, who: 'teacher' | 'author' = 'teacher') =>
      school.as[who].send('POST', `/courses/${school.course}/${at}/members`, { body: { bringIn } });
    async function quiz(grades: Record<string, number>, returned = true): Promise<string> {
      const made = await school.as.teacher.send('POST', `/courses/${school.course}/assignments`, {
        body: { title: 'Quiz' },
      });
      const { id: assignment } = made.json as { id: string };
      await school.as.teacher.send('PATCH', `/assignments/${assignment}`, {
        body: { open: true, marking: { ...PLAIN_MARKING, possible: 2000 } },
      });
      const changes = Object.entries(grades).map(([student, points]) => ({ assignment, student, to: { points } }));
      await change(changes);
      if (returned) await change(changes.map((one) => ({ ...one, to: { returned: true } })));
      return assignment;
    }
    const change = (changes: object[]) =>
      school.as.teacher.send('PUT', `/courses/${school.course}/gradebook`, { body: { changes, why: '' } });
    const send = async (assignment: string, since = new Date()) =>
      school.as.teacher.send('POST', `/courses/${school.course}/${at}/grades`, {
        body: { assignment, since: since.toISOString() },
      });
    const stateIn = (answer: { json: unknown }): SentState => (answer.json as { state: SentState }).state;

    it('leads whoever comes from there into it', async () => {
      expect((await launch('t1')).to).toBe(`/courses/${school.course}`);
      const { client, to } = await launch('s2');
      expect([to, (await client.send('GET', `/courses/${school.course}`)).status]).toEqual([
        `/courses/${school.course}`,
        200,
      ]);
    });

    it('tells who is in the class, page by page, before anybody comes in', async () => {
      const looked = (await members(false)).json as RosterReport;
      expect(looked.lines).toHaveLength(32);
      const fateOf = (name: string) => looked.lines.find((line) => line.name === name)?.fate;
      expect([fateOf('The author'), fateOf('Neo Lund'), fateOf('Pupil 29')]).toEqual(['known', 'known', 'add']);
      const done = (await members(true)).json as RosterReport;
      expect([done.done, done.added.length]).toEqual([true, 30]);
      expect(((await members(true)).json as RosterReport).added).toEqual([]);
      expect((await members(true, 'author')).status).toBe(403);
    });

    it('gets its token by no address that is less safe than its own', async () => {
      await test.db.query(`update platforms set token_address = replace(token_address, 'http:', 'https:')`);
      const answer = await members(false);
      await test.db.query(`update platforms set token_address = replace(token_address, 'https:', 'http:')`);
      expect([answer.status, (answer.json as Problem).detail]).toEqual([502, expect.stringContaining('is not safe')]);
    });

    it('is sent what students see, and nothing else, when a teacher says so', async () => {
      const { author, classmate } = school.ids;
      const assignment = await quiz({ [author]: 1550, [classmate]: 900 });
      const draft = await quiz({ [author]: 100 }, false);
      expect(standIn.items).toEqual([]);
      const state = stateIn(await send(assignment));
      expect(state).toMatchObject({ returned: 2, sent: 1 });
      expect(state.problems).toEqual([
        { student: 'The classmate', why: expect.stringContaining('Look at its class list first') as string },
      ]);
      const [item] = standIn.items;
      expect(item).toMatchObject({ label: 'Quiz', scoreMaximum: 20, resourceId: assignment });
      expect([...item!.scores]).toMatchObject([['s1', { scoreGiven: 15.5, scoreMaximum: 20 }]]);
      expect(stateIn(await send(draft))).toMatchObject({ returned: 0, sent: 0 });
      expect(standIn.items).toHaveLength(1);
      expect(
        (
          await school.as.author.send('POST', `/courses/${school.course}/${at}/grades`, {
            body: { assignment, since: new Date().toISOString() },
          })
        ).status,
      ).toBe(403);
    });

    it('is sent a grade again when it is another, into the same column', async () => {
      const { author } = school.ids;
      const assignment = await quiz({ [author]: 1000 });
      await send(assignment);
      const tokens = standIn.tokens();
      expect(stateIn(await send(assignment))).toMatchObject({ returned: 1, sent: 1 });
      expect(standIn.tokens()).toBe(tokens);
      const place = { assignment, student: author };
      await change([{ ...place, to: { returned: false } }]);
      await change([{ ...place, to: { points: 1200 } }]);
      await change([{ ...place, to: { returned: true } }]);
      expect(stateIn(await send(assignment))).toMatchObject({ sent: 1, problems: [] });
      expect(standIn.items.map(({ scores }) => scores.get('s1')?.scoreGiven)).toEqual([12]);
    });

    it('has a grade withdrawn that is excused or taken back, and shows what it holds', async () => {
      const { author } = school.ids;
      const assignment = await quiz({ [author]: 1000 });
      const place = { assignment, student: author };
      await send(assignment);
      const held = () =>
        standIn.items.find(({ resourceId }) => resourceId === assignment)!.scores.get('s1')?.scoreGiven;
      expect(held()).toBe(10);
      await change([{ ...place, to: { returned: false } }]);
      const there = async () => {
        const { json } = await school.as.teacher.send('GET', `/courses/${school.course}/platform`);
        return (json as z.infer<typeof readCoursePlatform.answer>).assignments.find(
          (one) => one.assignment === assignment,
        );
      };
      expect(await there()).toMatchObject({
        ...{ returned: 0, sent: 0, toWithdraw: 1 },
        different: [{ student: 'The author', here: null, there: { points: 1000, possible: 2000 } }],
      });
      expect(stateIn(await send(assignment))).toMatchObject({ toWithdraw: 0, different: [], problems: [] });
      expect(held()).toBeUndefined();

      await change([{ ...place, to: { returned: true } }]);
      await send(assignment);
      expect(held()).toBe(10);
      await change([{ ...place, to: { returned: false } }]);
      await change([{ ...place, to: { flag: 'excused' } }]);
      await change([{ ...place, to: { returned: true } }]);
      await send(assignment);
      expect([held(), await there()]).toEqual([undefined, undefined]);
    });

    it('looks up its column again after it was deleted there', async () => {
      const { author } = school.ids;
      const assignment = await quiz({ [author]: 1000 });
      const place = { assignment, student: author };
      await send(assignment);
      standIn.items.splice(0);
      await change([{ ...place, to: { returned: false } }]);
      await change([{ ...place, to: { points: 1100 } }]);
      await change([{ ...place, to: { returned: true } }]);
      expect(stateIn(await send(assignment))).toMatchObject({ sent: 1, problems: [] });
      expect(standIn.items.map(({ scores }) => scores.get('s1')?.scoreGiven)).toEqual([11]);
    });

    it('is tried again where it is busy; what does not arrive says why, and can be sent later', async () => {
      const assignment = await quiz({ [school.ids.author]: 1000 });
      // The token, then the list of columns twice.
      standIn.failWith(503, 500);
      expect(stateIn(await send(assignment))).toMatchObject({ sent: 1, problems: [] });

      const other = await quiz({ [school.ids.author]: 700 });
      standIn.failWith(503, 503, 503);
      const failed = await send(other);
      expect([failed.status, (failed.json as Problem).detail]).toEqual([
        502,
        expect.stringContaining('out of order (503)'),
      ]);
      expect(stateIn(await send(other))).toMatchObject({ sent: 1 });

      const third = await quiz({ [school.ids.author]: 300 });
      await send(third);
      const place = { assignment: third, student: school.ids.author };
      await change([{ ...place, to: { returned: false } }]);
      await change([{ ...place, to: { points: 400 } }]);
      await change([{ ...place, to: { returned: true } }]);
      // Token, then the score is refused for good.
      const item = standIn.items.find(({ resourceId }) => resourceId === third)!;
      item.scores.set('s1', { scoreGiven: 3, scoreMaximum: 20, timestamp: '2099-01-01T00:00:00Z' });
      const state = stateIn(await send(third));
      expect(state).toMatchObject({
        sent: 0,
        problems: [{ student: 'The author', why: 'The simulated platform refuses this (409).' }],
      });
      item.scores.clear();
      expect(stateIn(await send(third, new Date(Date.now() + 1000)))).toMatchObject({ sent: 1, problems: [] });
    });

    it('cannot be connected twice', async () => {
      const other = { ...COURSE, id: 'second' };
      const begun = await begin('t1');
      const claims = {
        ...claimsOf('t1', begun.nonce),
        ...launchClaims({ address: standIn.address, course: other, person: personOf('t1') }),
      };
      const landed = await land(await standIn.sign(claims), begun);
      const second = landed.headers.get('Location')!.split('/').at(-1)!;
      const answer = await school.as.teacher.send('PUT', `/launched/${second}`, { body: { course: school.course } });
      expect([answer.status, (answer.json as Problem).type]).toEqual([409, 'urn:vivid-margin:connected-elsewhere']);
      const made = await school.as.teacher.send('PUT', `/launched/${second}`, { body: { course: null } });
      expect(made.status).toBe(200);
    });
  });

  it('is entered and taken out by the steward alone; its keys are not told', async () => {
    const other = 'https://other.example';
    const entered = {
      ...{ ...standIn.platform, issuer: other, authAddress: `${other}/auth` },
      ...{ tokenAddress: `${other}/token`, keysAddress: `${other}/keys` },
    };
    expect((await school.as.teacher.send('GET', '/platforms')).status).toBe(403);
    expect((await school.as.teacher.send('POST', '/platforms', { body: entered })).status).toBe(403);
    await test.db.query('update people set steward = true where id = $1', [school.ids.colleague]);
    const made = await school.as.colleague.send('POST', '/platforms', { body: entered });
    expect(made.status).toBe(200);
    expect((await school.as.colleague.send('POST', '/platforms', { body: entered })).status).toBe(409);
    // No server is made to ask its own machine, and no token travels in the open.
    for (const tokenAddress of [
      'http://plain.example/token',
      standIn.platform.tokenAddress,
      'file:///etc/passwd',
      'x',
    ]) {
      const body = { ...entered, issuer: 'x', tokenAddress };
      expect((await school.as.colleague.send('POST', '/platforms', { body })).status).toBe(400);
    }
    const { id } = made.json as { id: string };
    expect((await school.as.colleague.send('DELETE', `/platforms/${id}`)).status).toBe(200);
    expect((await school.as.colleague.send('DELETE', `/platforms/${id}`)).status).toBe(404);
    const keys = await (await door('/keys')).text();
    expect(JSON.parse(keys)).toMatchObject({ keys: [{ kty: 'RSA', alg: 'RS256' }] });
    expect(/"(d|p|q)":/u.test(keys)).toBe(false);
    // No state is kept as it is.
    const { state } = await begin('t1');
    const [row] = await test.db.query('select 1 as one from platform_logins where state_hash = $1', [
      createHash('sha256').update(state).digest(),
    ]);
    expect(row).toBeDefined();
  });
});
