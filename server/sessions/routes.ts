import { Router } from 'express';
import { rateLimit } from 'express-rate-limit';
import { z } from 'zod';
import { Person } from '../../contract/basics.ts';
import { readSession, signIn, signOut, type SignIn } from '../../contract/session.ts';
import type { Context } from '../context.ts';
import { selectOne } from '../db/database.ts';
import { problems } from '../errors.ts';
import { serveAnyone } from '../http/serve.ts';
import { NO_PASSWORD, passwordFits } from './passwords.ts';
import { clearCookie, endSession, openSession, PERSON_COLUMNS, personOf, setCookie } from '../http/person-of.ts';

const Credentials = z.object({ id: z.string(), password_hash: z.string() });

const limitTries = () =>
  rateLimit({
    windowMs: 15 * 60 * 1000,
    limit: 20,
    skipSuccessfulRequests: true,
    standardHeaders: 'draft-8',
    legacyHeaders: false,
    handler: () => {
      throw problems.tooManyTries();
    },
  });

export function sessionRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;

  serveAnyone(router, readSession, async ({ request }) => ({ person: (await personOf(db, request)) ?? null }));

  router.post(signIn.path, limitTries());
  serveAnyone(router, signIn, async ({ body, request, response }) => {
    const id = await identify(context, body);
    await endSession(db, request);
    setCookie(response, await openSession(db, id), settings);
    const person = await selectOne(db, Person, `select ${PERSON_COLUMNS} from people p where p.id = $1`, [id]);
    return { person: person ?? null };
  });

  serveAnyone(router, signOut, async ({ request, response }) => {
    await endSession(db, request);
    clearCookie(response, settings);
    return {};
  });
  return router;
}

async function identify({ db }: Context, body: SignIn): Promise<string> {
  if ('samplePerson' in body) {
    const found = await selectOne(
      db,
      Person.pick({ id: true }),
      'select p.id from people p, school where school.sample and p.id = $1',
      [body.samplePerson],
    );
    if (!found) throw problems.wrongPassword();
    return found.id;
  }
  const found = await selectOne(db, Credentials, 'select id, password_hash from people where login = lower($1)', [
    body.login.trim(),
  ]);
  // The same time passes whether or not the name exists, so that names cannot be guessed.
  const fits = await passwordFits(body.password, found?.password_hash ?? NO_PASSWORD);
  if (!found || !fits) throw problems.wrongPassword();
  return found.id;
}
