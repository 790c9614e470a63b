import { parseCookie } from 'cookie';
import express, { Router, type ErrorRequestHandler, type Request, type Response } from 'express';
import { rateLimit } from 'express-rate-limit';
import { z } from 'zod';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { asProblem } from '../http/problem-handler.ts';
import { endSession, openSession, setCookie } from '../http/person-of.ts';
import { open } from '../http/serve.ts';
import { addressOf } from '../joining/invite.ts';
import type { Settings } from '../settings.ts';
import { ARRIVAL_COOKIE, keepArrival } from './arrival.ts';
import { arrive, placeOf, whoComes } from './arrive.ts';
import { publicKeys } from './keys.ts';
import { answerPage, escaped } from './page.ts';
import { beginSignIn, endSignIn, hashOf, Initiation, selectPlatforms } from './sign-in.ts';

/** What a platform has to be told of us. */
export const ownAddresses = (settings: Settings, request: Request): { login: string; launch: string; keys: string } => {
  const own = addressOf(settings, request);
  return { login: `${own}/lti/login`, launch: `${own}/lti/launch`, keys: `${own}/lti/keys` };
};

/** One for each sign-in: several can be under way in one browser. */
const cookieOf = (state: string): string => `vivid_platform_${hashOf(state).toString('hex').slice(0, 12)}`;
const TEN_MINUTES = 10 * 60_000;
const LARGEST = '100kb';
/** Sign-ins that may be begun from one address within a minute: several classes at once. */
const MOST_BEGUN = 240;
const Returned = z.object({ id_token: z.string().min(1), state: z.string().min(1).max(200) });
const Failed = z.object({ error: z.string().max(200) });

/** Where learning platforms send people to (LTI 1.3). Other sites' pages lead here, so this is not below `/api`. */
export function platformDoors(context: Context): Router {
  const router = Router();
  const { db, settings } = context;
  const form = express.urlencoded({ extended: false, limit: LARGEST });
  const begun = rateLimit({
    ...{ windowMs: 60_000, limit: MOST_BEGUN, standardHeaders: true, legacyHeaders: false },
    handler() {
      throw problems.tooManyLaunches();
    },
  });

  router.get('/lti/keys', open, async (_request, response) => {
    response.set('Cache-Control', 'public, max-age=600').json(await publicKeys(db));
  });

  const begin = async (asked: unknown, request: Request, response: Response): Promise<void> => {
    const initiation = Initiation.safeParse(asked);
    if (!initiation.success) throw problems.launchRefused('It does not say who wants to come.');
    if (isFramed(request)) return offerWindow(initiation.data, response);
    const { to, state } = await beginSignIn(db, initiation.data, ownAddresses(settings, request).launch);
    // It comes back in a form of another site: over https no cookie would come along otherwise.
    const { secureCookies: secure } = settings;
    response.cookie(cookieOf(state), state, {
      ...{ httpOnly: true, secure, sameSite: secure ? 'none' : 'lax', path: '/lti', maxAge: TEN_MINUTES },
    });
    response.redirect(302, to);
  };
  router.get('/lti/login', open, begun, (request, response) => begin(request.query, request, response));
  router.post('/lti/login', open, begun, form, (request, response) => begin(request.body, request, response));

  /** Within another site's page a browser keeps no cookies for us: it goes on in a window of its own. */
  async function offerWindow(asked: z.infer<typeof Initiation>, response: Response): Promise<void> {
    const known = (await selectPlatforms(db)).filter(({ issuer }) => issuer === asked.iss);
    if (known.length === 0) throw problems.unknownPlatform();
    const origins = new Set(known.flatMap(({ issuer, authAddress }) => originsOf([issuer, authAddress])));
    response.removeHeader('X-Frame-Options');
    response.set(
      'Content-Security-Policy',
      `default-src 'none'; style-src 'unsafe-inline'; base-uri 'none'; frame-ancestors ${[...origins].join(' ')}`,
    );
    const address = `/lti/login?${new URLSearchParams(JSON.parse(JSON.stringify(asked)) as Record<string, string>).toString()}`;
    answerPage(response, {
      ...{ status: 200, title: 'Vivid Margin opens in a new window' },
      body: `<p>Recording needs your microphone, and browsers don’t allow that inside another site’s page.</p>
<p><a class="go" href="${escaped(address)}" target="_blank" rel="noopener">Open Vivid Margin</a></p>`,
    });
  }

  router.post('/lti/launch', open, form, async (request, response) => {
    const failed = Failed.safeParse(request.body);
    if (failed.success) throw problems.launchRefused(`It says: ${failed.data.error}.`);
    const returned = Returned.safeParse(request.body);
    if (!returned.success) throw problems.launchRefused('Nothing was sent.');
    const { id_token: token, state } = returned.data;
    const kept = parseCookie(request.get('Cookie') ?? '')[cookieOf(state)];
    response.clearCookie(cookieOf(state), { path: '/lti' });
    const { platform, launch } = await endSignIn(context, { token, state, kept });
    const came = await db.transaction(async (tx) => {
      const person = await whoComes(tx, platform, launch);
      return person === undefined
        ? { key: await keepArrival(tx, { platform: platform.id, launch }) }
        : { arrived: await arrive(tx, platform, launch, person) };
    });
    if (!came.arrived) {
      const { secureCookies: secure } = settings;
      response.cookie(ARRIVAL_COOKIE, came.key, {
        ...{ httpOnly: true, secure, sameSite: 'lax', path: '/api/platform-arrival', maxAge: TEN_MINUTES },
      });
      return response.redirect(303, '/arrived');
    }
    // Whoever was signed in here before is not any more.
    await endSession(db, request);
    setCookie(response, await openSession(db, came.arrived.person, request), settings);
    response.redirect(303, placeOf(came.arrived));
  });

  router.use('/lti', sayWhy);
  return router;
}

const isFramed = (request: Request): boolean =>
  ['iframe', 'frame', 'embed'].includes(request.get('Sec-Fetch-Dest') ?? '');

const originsOf = (addresses: readonly string[]): string[] =>
  addresses.flatMap((address) => (URL.canParse(address) ? [new URL(address).origin] : []));

/** People stand before this door, not programs: they get a page, whatever went wrong. */
const sayWhy: ErrorRequestHandler = (error: unknown, _request, response, next) => {
  if (response.headersSent) return next(error);
  const { status, title, detail } = asProblem(error).problem;
  answerPage(response, {
    ...{ status, title },
    body: `<p>${escaped(detail)}</p><p><a href="/">To Vivid Margin</a></p>`,
  });
};
