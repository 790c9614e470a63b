import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Client } from '../testing/client.ts';
import { openSession } from '../http/person-of.ts';
import { bodies, type TestDatabase } from '../testing/databases.ts';
import { PASSWORD, startTestSchool, type TestSchool } from '../testing/school.ts';
import { hashPassword, NO_PASSWORD, passwordFits } from './passwords.ts';

let test: TestDatabase;
let school: TestSchool;
beforeAll(async () => {
  test = await bodies[0]!.open();
  school = await startTestSchool(test.db);
});
afterAll(async () => {
  await school.stop();
  await test.remove();
});

describe('passwords', () => {
  it('fit their own hash only, whatever way an accent was typed', async () => {
    const hash = await hashPassword('Fjörd 7');
    expect(await passwordFits('Fjo\u0308rd 7', hash)).toBe(true);
    expect(await passwordFits('Fjord 7', hash)).toBe(false);
    expect(await hashPassword('Fjörd 7')).not.toBe(hash);
  });

  it('are all wrong for somebody who is not there', async () => {
    expect(NO_PASSWORD.replace(/[^$]+/gu, ({ length }) => String(length))).toBe(
      (await hashPassword('')).replace(/[^$]+/gu, ({ length }) => String(length)),
    );
    expect(await passwordFits('', NO_PASSWORD)).toBe(false);
  });
});

describe('sessions', () => {
  it('begin with a cookie that scripts cannot read, and end', async () => {
    const client = new Client(school.address);
    const answer = await client.send('POST', '/session', { body: { login: ' Teacher ', password: PASSWORD } });
    expect(answer.json).toEqual({
      person: { id: school.ids.teacher, name: 'The teacher', teaches: true, learns: false },
      zone: null,
    });
    expect(answer.headers.get('Set-Cookie')).toMatch(/HttpOnly.*SameSite=Lax/);
    await client.send('DELETE', '/session');
    expect((await client.send('GET', '/session')).json).toEqual({ person: null });
  });

  it('store no token, only its hash', async () => {
    const client = new Client(school.address);
    const { headers } = await client.send('POST', '/session', { body: { login: 'author', password: PASSWORD } });
    const token = /vivid_session=([^;]+)/.exec(headers.get('Set-Cookie')!)![1]!;
    const rows = await test.db.query('select token_hash from sessions');
    expect(rows.length).toBeGreaterThan(0);
    for (const { token_hash: hash } of rows) expect(String(hash)).not.toContain(token);
  });

  it('tell nothing about which of name and password was wrong', async () => {
    const wrong = [
      { login: 'teacher', password: 'guess' },
      { login: 'no such person', password: PASSWORD },
    ];
    const answers = await Promise.all(
      wrong.map((body) => new Client(school.address).send('POST', '/session', { body })),
    );
    expect(answers.map(({ status }) => status)).toEqual([401, 401]);
    expect(answers[0]!.text).toBe(answers[1]!.text);
  });

  it('never begin with one click outside the sample school', async () => {
    const answer = await new Client(school.address).send('POST', '/session', {
      body: { samplePerson: school.ids.teacher },
    });
    expect(answer.status).toBe(401);
    expect((await school.as.nobody.send('GET', '/school')).json).toMatchObject({ samplePeople: [] });
  });

  it('cannot be used from another site', async () => {
    const headers = { Origin: 'https://elsewhere.example' };
    const answer = await school.as.teacher.send('DELETE', '/session', { headers });
    expect(answer).toMatchObject({ status: 403, json: { title: 'Refused' } });
    expect((await school.as.teacher.send('GET', '/session')).json).toMatchObject({
      person: { id: school.ids.teacher },
    });
  });

  it('are slowed down for whoever keeps guessing', async () => {
    const guess = () =>
      new Client(school.address).send('POST', '/session', { body: { login: 'teacher', password: 'guess' } });
    const tries = await Promise.all(Array.from({ length: 12 }, guess));
    expect(tries.filter(({ status }) => status === 401).length).toBeLessThanOrEqual(5);
    const late = await guess();
    expect(late).toMatchObject({ status: 429, json: { title: 'Too many attempts' } });
    expect(Number(late.headers.get('Retry-After'))).toBeGreaterThan(0);
    // Whoever is signed in changes the password all the same.
    const change = await school.as.teacher.send('PUT', '/password', { body: { current: PASSWORD, next: PASSWORD } });
    expect(change.status).toBe(200);
    // Others behind the same address are not kept out.
    const body = { login: 'colleague', password: PASSWORD };
    expect((await new Client(school.address).send('POST', '/session', { body })).status).toBe(200);
  });

  it('begin for a whole class behind one address at once', async () => {
    const body = { login: 'classmate', password: PASSWORD };
    const enter = () => new Client(school.address).send('POST', '/session', { body });
    const answers = await Promise.all(Array.from({ length: 21 }, enter));
    expect(new Set(answers.map(({ status }) => status))).toEqual(new Set([200]));
  }, 60_000);
});

describe('a person', () => {
  const enter = async (login: string, password: string): Promise<{ client: Client; status: number }> => {
    const client = new Client(school.address);
    return { client, status: (await client.send('POST', '/session', { body: { login, password } })).status };
  };
  const isIn = async ({ client }: { client: Client }): Promise<boolean> =>
    ((await client.send('GET', '/session')).json as { person: unknown }).person !== null;

  it('lists where somebody is signed in, this browser first, and nobody else’s', async () => {
    await openSession(test.db, school.ids.stranger);
    const { json, text } = await school.as.stranger.send('GET', '/sessions');
    expect(json).toMatchObject([{ here: true }, { here: false }]);
    expect(text).not.toContain('token');
    expect((await school.as.nobody.send('GET', '/sessions')).status).toBe(401);
  });

  it('changes the password, and is signed out everywhere else', async () => {
    const [here, elsewhere] = [await enter('author', PASSWORD), await enter('author', PASSWORD)];
    const change = (current: string, next: string) => here.client.send('PUT', '/password', { body: { current, next } });
    expect(await change('not it', 'another password')).toMatchObject({
      status: 422,
      json: { title: 'Password not changed' },
    });
    expect((await change(PASSWORD, 'short')).status).toBe(400);
    expect((await change(PASSWORD, '          ')).status).toBe(400);
    for (const [next, type] of [
      ['football1', 'password-common'],
      ['PASSWORD', 'password-common'],
      ['The Author', 'password-is-name'],
    ] as const)
      expect((await change(PASSWORD, next)).json).toMatchObject({ type: `urn:vivid-margin:${type}` });
    expect([await isIn(here), await isIn(elsewhere)]).toEqual([true, true]);
    expect((await change(PASSWORD, 'another password')).status).toBe(200);
    expect([await isIn(here), await isIn(elsewhere)]).toEqual([true, false]);
    expect([(await enter('author', PASSWORD)).status, (await enter('author', 'another password')).status]).toEqual([
      401, 200,
    ]);
  });

  it('is known in a browser in which they were signed in, until their password is given anew', async () => {
    const answer = await new Client(school.address).send('POST', '/session', {
      body: { login: 'colleague', password: PASSWORD },
    });
    const known = /vivid_browser=([^;]+)/u.exec(answer.headers.get('Set-Cookie')!)![1]!;
    const guess = (password: string, headers: object = {}) =>
      fetch(`${school.address}/api/session`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json', ...headers },
        body: JSON.stringify({ login: 'colleague', password }),
      }).then(({ status }) => status);
    await Promise.all(Array.from({ length: 8 }, () => guess('wrong')));
    expect(await guess(PASSWORD)).toBe(429);
    expect(await guess(PASSWORD, { Cookie: `vivid_browser=${known}` })).toBe(200);
    const rows = await test.db.query('select token_hash from known_browsers');
    for (const { token_hash: hash } of rows) expect(String(hash)).not.toContain(known);
  });

  it('signs out everywhere', async () => {
    const [here, elsewhere] = [await enter('stranger', PASSWORD), await enter('stranger', PASSWORD)];
    expect((await here.client.send('DELETE', '/sessions')).status).toBe(200);
    expect([await isIn(here), await isIn(elsewhere)]).toEqual([false, false]);
  });
});

describe('every page', () => {
  it('forbids inline script and other hosts', async () => {
    const response = await fetch(`${school.address}/sign-in`);
    const policy = response.headers.get('Content-Security-Policy')!;
    expect(policy).toContain("default-src 'none'");
    expect(policy).toContain("script-src 'self' 'wasm-unsafe-eval';");
    expect(policy).not.toMatch(/https?:|\*/);
    expect(response.headers.get('X-Content-Type-Options')).toBe('nosniff');
  });
});
