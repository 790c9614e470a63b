import { Router, type Request, type Response } from 'express';
import pLimit from 'p-limit';
import { Person } from '../../contract/basics.ts';
import { endCourseCode, join, lookAtCode, makeCourseCode, makeSlips, openSchool } from '../../contract/joining.ts';
import type { Context } from '../context.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { endSession, openSession, PERSON_COLUMNS, setCookie } from '../http/person-of.ts';
import { serve, serveAnyone } from '../http/serve.ts';
import { selectSchoolName, selectTitle } from '../school/people.ts';
import { rememberBrowser } from '../sessions/known-browsers.ts';
import { newPasswordHash } from '../sessions/passwords.ts';
import { wrongTries } from '../sessions/tries.ts';
import { addressOf, inviteByMail } from './invite.ts';
import { deleteCourseCode, makeCode } from './codes.ts';
import { codeThatOpens, joinWith, openSchoolWith, selectLogin } from './join.ts';
import { selectResettable, slipFor } from './slips.ts';

/** Hashing a password takes a thread of the few that also read files. */
const AT_ONCE = 2;

/** Ways into the school for those who have no password yet. */
export function joiningRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;
  const tries = wrongTries();
  const turns = pLimit(AT_ONCE);

  serveAnyone(router, lookAtCode, ({ body, request }) =>
    guessed(request, async () => {
      const { opens, title, name, login } = await codeThatOpens(db, body.code);
      return { opens, school: (await selectSchoolName(db)) ?? '', course: title, name, login };
    }),
  );

  serveAnyone(router, join, ({ body, request, response }) =>
    guessed(request, async () => {
      const { name, login } = await codeThatOpens(db, body.code);
      const known = [name, login, body.name ?? null].filter((one) => one !== null);
      const passwordHash = await turns(() => newPasswordHash(body.password, known));
      return enter(request, response, (tx) => joinWith(tx, body.code, { name: body.name, passwordHash }));
    }),
  );

  serveAnyone(router, openSchool, ({ body: { code, school, zone, name, password }, request, response }) =>
    guessed(request, async () => {
      await codeThatOpens(db, code);
      const passwordHash = await turns(() => newPasswordHash(password, [name]));
      return enter(request, response, (tx) => openSchoolWith(tx, code, { school, zone, name, passwordHash }));
    }),
  );

  serve(router, context, makeSlips, 'course.set', async ({ params, body, person, request }) => {
    const byMail = body.byMail && settings.mail.server !== undefined;
    const title = await selectTitle(db, params.course);
    const address = addressOf(settings, request);
    let mailed = 0;
    const slips = await db.transaction(async (tx) => {
      const people = await selectResettable(tx, { course: params.course, people: body.people, teacher: person.id });
      if (people === 'unknown') throw problems.notFound();
      if (people === 'elsewhere') throw problems.slipElsewhere();
      const made = [];
      for (const id of people) {
        const slip = await slipFor(tx, id, person.id);
        if (byMail && (await inviteByMail(tx, slip, title, address))) mailed++;
        else made.push(slip);
      }
      return made;
    });
    return { slips, mailed };
  });

  serve(router, context, makeCourseCode, 'course.set', ({ params, person }) =>
    db.transaction((tx) => makeCode(tx, { opens: 'course', course: params.course }, person.id)),
  );

  serve(router, context, endCourseCode, 'course.set', async ({ params }) => {
    await deleteCourseCode(db, params.course);
    return {};
  });
  return router;

  /** Nobody can guess a code, so whoever tries only gets the wrong answers later. */
  async function guessed<Answer>(request: Request, open: () => Promise<Answer>): Promise<Answer> {
    const asker = { account: null, address: request.ip ?? '' };
    const opened = await tries.attempt<{ answer: Answer } | { error: unknown }>(
      asker,
      async () => {
        try {
          return { answer: await open() };
        } catch (error) {
          if (problems.isCodeUnknown(error)) return { error };
          throw error;
        }
      },
      (result) => 'answer' in result,
    );
    if ('error' in opened) throw opened.error;
    return opened.answer;
  }

  async function enter(request: Request, response: Response, who: (tx: Queries) => Promise<string>) {
    const { id, token } = await db.transaction(async (tx) => {
      const id = await who(tx);
      return { id, token: await openSession(tx, id, request) };
    });
    await endSession(db, request);
    setCookie(response, token, settings);
    await rememberBrowser(db, id, request, response, settings);
    const person = await selectOne(db, Person, `select ${PERSON_COLUMNS} from people p where p.id = $1`, [id]);
    return { person: person ?? null, login: await selectLogin(db, id) };
  }
}
