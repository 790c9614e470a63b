import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { SignJWT } from 'jose';
import { z } from 'zod';
import type { Platform } from '../../contract/platforms.ts';
import type { Context } from '../context.ts';
import { ownKey } from './keys.ts';
import { fetchFor } from './public-address.ts';

/** A platform does not do what was asked; the sentence says why. */
export class PlatformError extends Error {
  override name = 'PlatformError';
  /** Of its answer, where there was one. */
  readonly status: number | undefined;
  constructor(message: string, status?: number) {
    super(message);
    this.status = status;
  }
}

const PATIENCE = 10_000;
const MOST_TRIES = 3;
/** Milliseconds before the second try; twice that before the third. */
const FIRST_PAUSE = 300;
const LONGEST_PAUSE = 3000;
const LARGEST_ANSWER = 8 * 1024 * 1024;
/** Milliseconds before it ends in which a token is not used any more. */
const MARGIN = 30_000;
const ASSERTION_SECONDS = 120;

const Token = z.object({ access_token: z.string().min(1), expires_in: z.number().positive().default(3600) });

interface Asked {
  method?: 'GET' | 'POST';
  accept: string;
  /** Sent as JSON. */
  body?: { type: string; content: object };
}
export interface PlatformService {
  /** @throws PlatformError */
  ask(address: string, asked: Asked): Promise<{ json: unknown; next: string | undefined }>;
}

/**
 * What a platform offers to a tool that has proved who it is (1EdTech Security Framework 1.0; RFC 7523).
 * @param scopes what a token is asked for; a launch has granted them
 */
export function platformService(
  { db, settings }: Pick<Context, 'db' | 'settings'>,
  platform: Platform,
  scopes: readonly string[],
): PlatformService {
  const ask = fetchFor(settings, platform.standIn);
  let token: { value: string; until: number } | undefined;

  async function access(): Promise<string> {
    if (token && token.until > Date.now() + MARGIN) return token.value;
    const { kid, key } = await ownKey(db);
    const assertion = await new SignJWT({})
      .setProtectedHeader({ alg: 'RS256', kid, typ: 'JWT' })
      .setIssuer(platform.clientId)
      .setSubject(platform.clientId)
      .setAudience(platform.tokenAddress)
      .setIssuedAt()
      .setExpirationTime(`${ASSERTION_SECONDS}s`)
      .setJti(randomUUID())
      .sign(key);
    const form = new URLSearchParams({
      grant_type: 'client_credentials',
      client_assertion_type: 'urn:ietf:params:oauth:client-assertion-type:jwt-bearer',
      client_assertion: assertion,
      scope: scopes.join(' '),
    });
    const response = await tried(platform.tokenAddress, { method: 'POST', body: form });
    if (!response.ok) throw new PlatformError(`${platform.name} does not let this school in (${response.status}).`);
    const answer = Token.safeParse(await jsonOf(response));
    if (!answer.success) throw new PlatformError(`${platform.name} did not answer as the standard wants it.`);
    token = { value: answer.data.access_token, until: Date.now() + answer.data.expires_in * 1000 };
    return token.value;
  }

  async function send(address: string, { method = 'GET', accept, body }: Asked): Promise<Response> {
    // A launch tells the address, and the token goes along.
    if (new URL(address).protocol !== new URL(platform.tokenAddress).protocol)
      throw new PlatformError(`${platform.name} names an address that is not safe: ${address}.`);
    return tried(address, {
      method,
      headers: {
        ...{ Authorization: `Bearer ${await access()}`, Accept: accept },
        ...(body && { 'Content-Type': body.type }),
      },
      ...(body && { body: JSON.stringify(body.content) }),
    });
  }

  /** What may help is tried again: a busy platform, a broken line. What is wrong stays wrong. */
  async function tried(address: string, init: RequestInit): Promise<Response> {
    for (let tries = 1; ; tries++) {
      const response = await ask(address, {
        ...{ ...init, redirect: 'error' },
        signal: AbortSignal.timeout(PATIENCE),
      }).catch(() => undefined);
      const again = !response || response.status === 429 || response.status >= 500;
      if (!again) return response;
      if (tries === MOST_TRIES)
        throw new PlatformError(
          response
            ? `${platform.name} is out of order (${response.status}). Try again later.`
            : `${platform.name} cannot be reached. Try again later.`,
        );
      const wanted = Number(response?.headers.get('Retry-After')) * 1000;
      await pause(Math.min(LONGEST_PAUSE, Math.max(wanted || 0, FIRST_PAUSE * 2 ** (tries - 1))));
    }
  }

  return {
    async ask(address, asked) {
      let response = await send(address, asked);
      if (response.status === 401) {
        // It may have been taken back before its time.
        token = undefined;
        response = await send(address, asked);
      }
      if (!response.ok) throw new PlatformError(`${platform.name} refuses this (${response.status}).`, response.status);
      return { json: await jsonOf(response), next: nextIn(response.headers.get('Link')) };
    },
  };

  async function jsonOf(response: Response): Promise<unknown> {
    const text = await textOf(response);
    try {
      return text === '' ? undefined : JSON.parse(text);
    } catch {
      throw new PlatformError(`${platform.name} did not answer as the standard wants it.`);
    }
  }

  async function textOf(response: Response): Promise<string> {
    const parts: Uint8Array[] = [];
    let size = 0;
    for await (const part of response.body ?? []) {
      size += (part as Uint8Array).length;
      if (size > LARGEST_ANSWER) throw new PlatformError(`${platform.name} answers with more than a course can be.`);
      parts.push(part as Uint8Array);
    }
    return Buffer.concat(parts).toString('utf8');
  }
}

/** The page after this one (RFC 8288). */
const nextIn = (link: string | null): string | undefined => /<([^<>]+)>\s*;[^,<]*rel="?next"?/u.exec(link ?? '')?.[1];
