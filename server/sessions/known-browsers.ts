import { parseCookie } from 'cookie';
import { createHash, randomBytes } from 'node:crypto';
import type { Request, Response } from 'express';
import type { Queries } from '../db/database.ts';
import { personOf } from '../http/person-of.ts';
import type { Settings } from '../settings.ts';

const COOKIE = 'vivid_browser';
const DAYS = 400;

const hashOf = (token: string): Buffer => createHash('sha256').update(token).digest();
const tokenOf = (request: Request): string | undefined => parseCookie(request.get('Cookie') ?? '')[COOKIE];

/** What tells a browser in which a person has signed in before, or is signed in; undefined where it is any other. */
export async function knownBrowser(db: Queries, person: string, request: Request): Promise<string | undefined> {
  if ((await personOf(db, request))?.id === person) return `${person} signed in`;
  const token = tokenOf(request);
  if (token === undefined) return undefined;
  const found = await db.query('select 1 as one from known_browsers where token_hash = $1 and person = $2', [
    hashOf(token),
    person,
  ]);
  return found.length > 0 ? `${person} ${hashOf(token).toString('hex')}` : undefined;
}

/** Somebody has signed in from here; several people may share a browser. */
export async function rememberBrowser(
  db: Queries,
  person: string,
  request: Request,
  response: Response,
  { secureCookies }: Settings,
): Promise<void> {
  const token = tokenOf(request) ?? randomBytes(24).toString('base64url');
  await db.query(
    `insert into known_browsers (token_hash, person) values ($1, $2)
     on conflict (token_hash, person) do update set seen_at = now()`,
    [hashOf(token), person],
  );
  response.cookie(COOKIE, token, {
    ...{ httpOnly: true, sameSite: 'lax', secure: secureCookies, path: '/api', maxAge: DAYS * 24 * 60 * 60 * 1000 },
  });
}

/** Whoever has a new password starts anew. */
export async function forgetBrowsers(db: Queries, person: string): Promise<void> {
  await db.query('delete from known_browsers where person = $1', [person]);
}

export async function purgeKnownBrowsers(db: Queries): Promise<void> {
  await db.query("delete from known_browsers where seen_at < now() - interval '400 days'");
}
