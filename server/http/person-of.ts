import { parseCookie } from 'cookie';
import { createHash, randomBytes } from 'node:crypto';
import type { Request, Response } from 'express';
import { Person } from '../../contract/basics.ts';
import { SignedInAt } from '../../contract/session.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import type { Settings } from '../settings.ts';

export type SignedIn = Person;

export const COOKIE = 'vivid_session';
/** A launch comes from a platform's page, and no session's cookie comes along; this one does, and can only end the session. */
const ENDING = 'vivid_ending';
const DAYS = 30;
const LONGEST_BROWSER = 300;

const hashOf = (token: string): Buffer => createHash('sha256').update(token).digest();
const tokenOf = (request: Request): string | undefined => parseCookie(request.get('Cookie') ?? '')[COOKIE];

/** A person as others see them. */
export const PERSON_COLUMNS = `p.id, p.name,
  p.steward or exists (select from enrolments e where e.person = p.id and e.role = 'teacher') as teaches,
  exists (select from enrolments e where e.person = p.id and e.role = 'student') as learns`;

export async function personOf(db: Queries, request: Request): Promise<SignedIn | undefined> {
  const token = tokenOf(request);
  if (!token) return undefined;
  return selectOne(
    db,
    Person,
    `select ${PERSON_COLUMNS} from sessions s join people p on p.id = s.person where s.token_hash = $1 and s.expires_at > now()`,
    [hashOf(token)],
  );
}

/** Opens a session and answers with its token; only the hash of it is stored. @param request of the browser that it is for */
export async function openSession(db: Queries, person: string, request?: Request): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await db.query('delete from sessions where expires_at < now()');
  await db.query(
    `insert into sessions (token_hash, person, expires_at, browser) values ($1, $2, now() + make_interval(days => $3), $4)`,
    [hashOf(token), person, DAYS, request?.get('User-Agent')?.slice(0, LONGEST_BROWSER) ?? ''],
  );
  return token;
}

/** Where a person is signed in, this browser first. Being looked at counts as being there. */
export async function selectSessions(db: Queries, person: string, request: Request): Promise<SignedInAt[]> {
  const here = hashOf(tokenOf(request) ?? '');
  await db.query('update sessions set seen_at = now() where token_hash = $1', [here]);
  return select(
    db,
    SignedInAt,
    `select opened_at as "openedAt", seen_at as "seenAt", browser, token_hash = $2 as here from sessions
     where person = $1 and expires_at > now() order by here desc, seen_at desc limit 100`,
    [person, here],
  );
}

/** Notes that a session is used, not more often than once in a while. */
export async function noteSeen(db: Queries, request: Request): Promise<void> {
  await db.query(
    "update sessions set seen_at = now() where token_hash = $1 and seen_at < now() - interval '10 minutes'",
    [hashOf(tokenOf(request) ?? '')],
  );
}

export function setCookie(response: Response, token: string, settings: Settings): void {
  const longest = DAYS * 24 * 60 * 60 * 1000;
  response.cookie(COOKIE, token, cookieOptions(settings, longest));
  response.cookie(ENDING, hashOf(token).toString('hex'), { ...endingOptions(settings), maxAge: longest });
}

export async function endSession(db: Queries, request: Request): Promise<void> {
  const { [COOKIE]: token, [ENDING]: ending } = parseCookie(request.get('Cookie') ?? '');
  for (const hash of [token && hashOf(token), ending && Buffer.from(ending, 'hex')])
    if (hash) await db.query('delete from sessions where token_hash = $1', [hash]);
}

/** All that a person has, in whatever browser. */
export async function endSessions(db: Queries, person: string): Promise<void> {
  await db.query('delete from sessions where person = $1', [person]);
}

export function clearCookie(response: Response, settings: Settings): void {
  response.clearCookie(COOKIE, cookieOptions(settings));
  response.clearCookie(ENDING, endingOptions(settings));
}

const endingOptions = ({ secureCookies: secure }: Settings) =>
  ({ httpOnly: true, secure, sameSite: secure ? 'none' : 'lax', path: '/lti' }) as const;

const cookieOptions = (settings: Settings, maxAge?: number) => ({
  httpOnly: true,
  sameSite: 'lax' as const,
  secure: settings.secureCookies,
  path: '/',
  ...(maxAge !== undefined && { maxAge }),
});
