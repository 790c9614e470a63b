import { Router, type Request } from 'express';
import pLimit from 'p-limit';
import { z } from 'zod';
import { Person, Zone } from '../../contract/basics.ts';
import {
  changePassword,
  readSession,
  readSessions,
  setZone,
  signIn,
  signOut,
  signOutEverywhere,
} from '../../contract/session.ts';
import type { Context } from '../context.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { serve, serveAnyone } from '../http/serve.ts';
import {
  clearCookie,
  endSession,
  endSessions,
  noteSeen,
  openSession,
  PERSON_COLUMNS,
  personOf,
  selectSessions,
  setCookie,
} from '../http/person-of.ts';
import { knownBrowser, rememberBrowser } from './known-browsers.ts';
import { newPasswordHash, NO_PASSWORD, passwordFits } from './passwords.ts';
import { wrongTries } from './tries.ts';

const Credentials = z.object({ id: z.string(), password_hash: z.string() });

const Login = z.object({ login: z.string() });

const Told = z.object({ steward: z.boolean(), zone: Zone.nullable() });

/** What the browser needs to know beside the person. */
async function told(db: Queries, person: string): Promise<{ zone: string | null; steward?: true }> {
  const { steward, zone } = (await selectOne(db, Told, 'select steward, zone from people where id = $1', [person]))!;
  return { zone, ...(steward && { steward }) };
}

const AT_ONCE = 2;

export function sessionRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;
  const tries = wrongTries();
  // Looking at a password takes a thread of the few that also read files.
  const turns = pLimit(AT_ONCE);

  // The app asks for this whenever it is opened.
  serveAnyone(router, readSession, async ({ request }) => {
    const person = await personOf(db, request);
    if (person) await noteSeen(db, request);
    return { person: person ?? null, ...(person && (await told(db, person.id))) };
  });

  serve(router, context, readSessions, 'own', ({ person, request }) => selectSessions(db, person.id, request));

  serveAnyone(router, signIn, async ({ body, request, response }) => {
    const id =
      'samplePerson' in body
        ? await samplePerson(db, body.samplePerson)
        : await owner(body.login, body.password, request);
    if (id === undefined) throw problems.wrongPassword();
    await endSession(db, request);
    setCookie(response, await openSession(db, id, request), settings);
    await rememberBrowser(db, id, request, response, settings);
    const person = await selectOne(db, Person, `select ${PERSON_COLUMNS} from people p where p.id = $1`, [id]);
    return { person: person ?? null, ...(await told(db, id)) };
  });

  serve(router, context, setZone, 'own', async ({ person, body: { zone } }) => {
    await db.query('update people set zone = $2 where id = $1', [person.id, zone]);
    return {};
  });

  serveAnyone(router, signOut, async ({ request, response }) => {
    await endSession(db, request);
    clearCookie(response, settings);
    return {};
  });

  serve(router, context, signOutEverywhere, 'own', async ({ person, response }) => {
    await endSessions(db, person.id);
    clearCookie(response, settings);
    return {};
  });

  serve(router, context, changePassword, 'own', async ({ body, person, request, response }) => {
    const { login } = (await selectOne(db, Login, 'select login from people where id = $1', [person.id]))!;
    if ((await owner(login, body.current, request)) !== person.id) throw problems.wrongCurrentPassword();
    const hash = await turns(() => newPasswordHash(body.next, [login, person.name]));
    const token = await db.transaction(async (tx) => {
      await tx.query('update people set password_hash = $2 where id = $1', [person.id, hash]);
      await endSessions(tx, person.id);
      return openSession(tx, person.id, request);
    });
    setCookie(response, token, settings);
    return {};
  });
  return router;

  /** Whose login and password these are. */
  async function owner(login: string, password: string, request: Request): Promise<string | undefined> {
    const account = login.trim().toLowerCase();
    const found = await selectOne(db, Credentials, 'select id, password_hash from people where login = $1', [account]);
    const browser = found && (await knownBrowser(db, found.id, request));
    return tries.attempt(
      { account, address: request.ip ?? '', browser },
      () =>
        turns(async () => {
          // The same time passes whether or not the name exists, so that names cannot be guessed.
          const fits = await passwordFits(password, found?.password_hash ?? NO_PASSWORD);
          return fits ? found?.id : undefined;
        }),
      (person) => person !== undefined,
    );
  }
}

/** Only a sample school has one. */
async function samplePerson(db: Queries, id: string): Promise<string | undefined> {
  const found = await selectOne(
    db,
    Person.pick({ id: true }),
    'select p.id from people p, school where school.sample and p.id = $1',
    [id],
  );
  return found?.id;
}
