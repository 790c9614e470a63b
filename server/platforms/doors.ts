import { parseCookie } from 'cookie';
import express, { Router, type ErrorRequestHandler, type Request, type Response } from 'express';
import { z } from 'zod';
import type { Context } from '../context.ts';
import { ProblemError, problems } from '../errors.ts';
import { openSession, setCookie } from '../http/person-of.ts';
import { open } from '../http/serve.ts';
import { addressOf } from '../joining/invite.ts';
import type { Settings } from '../settings.ts';
import { arrive } from './arrive.ts';
import { publicKeys } from './keys.ts';
import { beginSignIn, endSignIn, hashOf, Initiation } from './sign-in.ts';

/** What a platform has to be told of us. */
export const ownAddresses = (settings: Settings, request: Request): { login: string; launch: string; keys: string } => {
  const own = addressOf(settings, request);
  return { login: `${own}/lti/login`, launch: `${own}/lti/launch`, keys: `${own}/lti/keys` };
};

/** One for each sign-in: several can be under way in one browser. */
const cookieOf = (state: string): string => `vivid_platform_${hashOf(state).toString('hex').slice(0, 12)}`;
const TEN_MINUTES = 10 * 60_000;
const LARGEST = '100kb';
const Returned = z.object({ id_token: z.string().min(1), state: z.string().min(1) });
const Failed = z.object({ error: z.string().max(200) });

/** Where learning platforms send people to (LTI 1.3). Other sites' pages lead here, so this is not below `/api`. */
export function platformDoors(context: Context): Router {
  const router = Router();
  const { db, settings } = context;
  const form = express.urlencoded({ extended: false, limit: LARGEST });

  router.get('/lti/keys', open, async (_request, response) => {
    response.set('Cache-Control', 'public, max-age=600').json(await publicKeys(db));
  });

  const begin = async (asked: unknown, request: Request, response: Response): Promise<void> => {
    const initiation = Initiation.safeParse(asked);
    if (!initiation.success) throw problems.launchRefused('It does not say who wants to come.');
    const { to, state } = await beginSignIn(db, initiation.data, ownAddresses(settings, request).launch);
    // It comes back in a form of another site: over https no cookie would come along otherwise.
    const { secureCookies: secure } = settings;
    response.cookie(cookieOf(state), state, {
      ...{ httpOnly: true, secure, sameSite: secure ? 'none' : 'lax', path: '/lti', maxAge: TEN_MINUTES },
    });
    response.redirect(302, to);
  };
  router.get('/lti/login', open, (request, response) => begin(request.query, request, response));
  router.post('/lti/login', open, form, (request, response) => begin(request.body, request, response));

  router.post('/lti/launch', open, form, async (request, response) => {
    const failed = Failed.safeParse(request.body);
    if (failed.success) throw problems.launchRefused(`It says: ${failed.data.error}.`);
    const returned = Returned.safeParse(request.body);
    if (!returned.success) throw problems.launchRefused('Nothing was sent.');
    const { id_token: token, state } = returned.data;
    const kept = parseCookie(request.get('Cookie') ?? '')[cookieOf(state)];
    response.clearCookie(cookieOf(state), { path: '/lti' });
    const { platform, launch } = await endSignIn(db, { token, state, kept });
    const { person, context: from, course } = await db.transaction((tx) => arrive(tx, platform, launch));
    setCookie(response, await openSession(db, person, request), settings);
    response.redirect(303, course ? `/courses/${course}` : `/launched/${from}`);
  });

  router.use('/lti', sayWhy);
  return router;
}

const escaped = (text: string): string =>
  text.replace(/[&<>"']/gu, (character) => `&#${String(character.codePointAt(0))};`);

/** People stand before this door, not programs: they get a page. */
const sayWhy: ErrorRequestHandler = (error: unknown, _request, response, next) => {
  if (!(error instanceof ProblemError)) return next(error);
  const { status, title, detail } = error.problem;
  response.status(status).type('html').send(`<!doctype html>
<html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width"><title>${escaped(title)}</title>
<style>body{max-width:34em;margin:4em auto;padding:0 1em;background:#ece7dd;color:#22201c;font:17px/1.5 sans-serif}a{color:inherit}</style></head>
<body><h1>${escaped(title)}</h1><p>${escaped(detail)}</p><p><a href="/">To Vivid Margin</a></p></body></html>`);
};
