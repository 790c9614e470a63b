import { createHash, randomBytes } from 'node:crypto';
import { createRemoteJWKSet, customFetch, errors, jwtVerify } from 'jose';
import { z } from 'zod';
import { Platform } from '../../contract/platforms.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import type { Settings } from '../settings.ts';
import { Launch } from './claims.ts';
import { fetchFor } from './public-address.ts';

/** Milliseconds for which a sign-in may be under way. */
const UNDER_WAY = 10 * 60_000;
/** Seconds by which clocks may differ, and after which a launch is too old. */
const CLOCKS_APART = 60;
const OLDEST_LAUNCH = 600;
const KEYS_TIMEOUT = 5000;

const PLATFORM = `p.id, p.name, p.issuer, p.client_id as "clientId", p.auth_address as "authAddress",
  p.token_address as "tokenAddress", p.keys_address as "keysAddress", p.trusts_mail as "trustsMail", p.stand_in as "standIn",
  coalesce(p.deployment, '') as deployment`;

export const selectPlatforms = (db: Queries): Promise<Platform[]> =>
  select(db, Platform, `select ${PLATFORM} from platforms p order by p.name, p.id`, []);

export const selectPlatform = async (db: Queries, id: string): Promise<Platform> =>
  (await selectOne(db, Platform, `select ${PLATFORM} from platforms p where p.id = $1`, [id]))!;

export const hashOf = (text: string): Buffer => createHash('sha256').update(text).digest();
export const secret = (): string => randomBytes(24).toString('base64url');

/** What a platform sends when somebody wants to come (OpenID Connect, third-party initiated login). */
export const Initiation = z.object({
  iss: z.string(),
  login_hint: z.string().min(1),
  target_link_uri: z.string().optional(),
  lti_message_hint: z.string().optional(),
  client_id: z.string().optional(),
});

/** @returns where to send the browser, and what it is to bring back with it */
export async function beginSignIn(
  db: Queries,
  asked: z.infer<typeof Initiation>,
  launchAddress: string,
): Promise<{ to: string; state: string }> {
  const known = (await selectPlatforms(db)).filter(
    ({ issuer, clientId }) => issuer === asked.iss && (asked.client_id === undefined || clientId === asked.client_id),
  );
  const [platform] = known;
  if (!platform || known.length > 1) throw problems.unknownPlatform();
  const [state, nonce] = [secret(), secret()];
  await db.query('delete from platform_logins where expires_at < now()');
  await db.query('insert into platform_logins (state_hash, nonce, platform, expires_at) values ($1, $2, $3, $4)', [
    ...[hashOf(state), nonce, platform.id, new Date(Date.now() + UNDER_WAY).toISOString()],
  ]);
  const to = new URL(platform.authAddress);
  const query = {
    ...{ scope: 'openid', response_type: 'id_token', response_mode: 'form_post', prompt: 'none' },
    ...{ client_id: platform.clientId, redirect_uri: launchAddress, login_hint: asked.login_hint, state, nonce },
    ...(asked.lti_message_hint !== undefined && { lti_message_hint: asked.lti_message_hint }),
  };
  for (const [name, value] of Object.entries(query)) to.searchParams.set(name, value);
  return { to: to.href, state };
}

/** Keys of platforms are asked for again where one is not known, and not more often than that. */
const keySets = new Map<string, ReturnType<typeof createRemoteJWKSet>>();
function keysOf({ keysAddress, standIn }: Platform, settings: Settings): ReturnType<typeof createRemoteJWKSet> {
  const known =
    keySets.get(keysAddress) ??
    createRemoteJWKSet(new URL(keysAddress), {
      timeoutDuration: KEYS_TIMEOUT,
      [customFetch]: fetchFor(settings, standIn) as never,
    });
  keySets.set(keysAddress, known);
  return known;
}

/**
 * Whoever comes, as the platform says and has signed. A sign-in ends once, whatever comes of it.
 * @param kept the state that the browser has kept
 */
export async function endSignIn(
  { db, settings }: Pick<Context, 'db' | 'settings'>,
  { token, state, kept }: { token: string; state: string; kept: string | undefined },
): Promise<{ platform: Platform; launch: Launch }> {
  const begun = await selectOne(
    db,
    z.object({ nonce: z.string(), platform: z.string(), late: z.boolean() }),
    'delete from platform_logins where state_hash = $1 returning nonce, platform, expires_at < now() as late',
    [hashOf(state)],
  );
  if (!begun || begun.late || kept !== state) throw problems.signInOver();
  const platform = await selectPlatform(db, begun.platform);
  const launch = await verified(platform, token, settings);
  if (launch.nonce !== begun.nonce) throw problems.launchRefused('It was made for another sign-in.');
  if (!(await isDeployment(db, platform, launch.deployment)))
    throw problems.launchRefused('It comes from another deployment of the platform than the one entered here.');
  return { platform, launch };
}

/** The first launch says which deployment is this school's where the steward has not. */
const isDeployment = async (db: Queries, { id }: Platform, deployment: string): Promise<boolean> =>
  (
    await db.query(
      'update platforms set deployment = coalesce(deployment, $2) where id = $1 and coalesce(deployment, $2) = $2 returning 1 as one',
      [id, deployment],
    )
  ).length > 0;

async function verified(platform: Platform, token: string, settings: Settings): Promise<Launch> {
  try {
    const { payload } = await jwtVerify(token, keysOf(platform, settings), {
      ...{ issuer: platform.issuer, audience: platform.clientId, algorithms: ['RS256'] },
      ...{ clockTolerance: CLOCKS_APART, maxTokenAge: OLDEST_LAUNCH, requiredClaims: ['exp', 'iat', 'nonce', 'sub'] },
    });
    // With several audiences it must be said who asked for it (OpenID Connect Core 1.0, 3.1.3.7).
    const { azp, aud } = payload;
    if ((Array.isArray(aud) && aud.length > 1 && azp === undefined) || (azp !== undefined && azp !== platform.clientId))
      throw problems.launchRefused('It is meant for another tool.');
    const launch = Launch.safeParse(payload);
    if (!launch.success)
      throw problems.launchRefused(`It does not say what a launch has to say: ${missing(launch.error)}.`);
    if (launch.data.name === '') throw problems.launchRefused('It does not say what you are called.');
    return launch.data;
  } catch (error) {
    if (!(error instanceof errors.JOSEError)) throw error;
    throw problems.launchRefused(whyOf(error));
  }
}

/** Which claim is wrong, by the last part of its name. */
const missing = ({ issues: [issue] }: z.ZodError): string =>
  String(issue?.path[0] ?? 'claims')
    .split('/')
    .at(-1)!;

function whyOf(error: errors.JOSEError): string {
  if (error instanceof errors.JWTExpired) return 'It has expired. Open it once more.';
  if (error instanceof errors.JWTClaimValidationFailed)
    return error.claim === 'aud' ? 'It is meant for another tool.' : `Its “${error.claim}” is not what it should be.`;
  if (error instanceof errors.JWKSTimeout) return 'The keys of the platform could not be read.';
  if (error instanceof errors.JWKSNoMatchingKey) return 'It is signed with a key that the platform does not have.';
  return 'Its signature is not that of the platform.';
}
