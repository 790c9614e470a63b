import { randomBytes, scrypt, timingSafeEqual } from 'node:crypto';
import { promisify } from 'node:util';
import { loginFor } from '#core/roster';
import { dictionary } from '@zxcvbn-ts/language-common';
import { problems } from '../errors.ts';

const derive = promisify<string, Buffer, number, { N: number; r: number; p: number; maxmem: number }, Buffer>(scrypt);

/** OWASP Password Storage Cheat Sheet, scrypt: N = 2^16, r = 8, p = 2. */
const COST = { N: 2 ** 16, r: 8, p: 2, maxmem: 128 * 1024 * 1024 };
const KEY_LENGTH = 32;

/** The most common ones first; more than are refused everywhere else (NIST SP 800-63B, 5.1.1.2: compared with a list). */
let common: Set<string> | undefined;
const isCommon = (password: string): boolean =>
  (common ??= new Set(dictionary['passwords-common'] as string[])).has(password);

const plain = (text: string): string => text.normalize('NFKC').trim().toLowerCase();

/**
 * Refuses a password that is guessed first.
 * @param known what everybody knows of its owner: the login, or the name
 * @throws ProblemError
 */
export function refuseGuessable(password: string, known: readonly string[]): void {
  const typed = plain(password);
  if (known.some((one) => typed === plain(one) || typed === loginFor(one, new Set()))) throw problems.passwordIsName();
  if (isCommon(typed)) throw problems.passwordCommon();
}

/** The hash of a password that somebody has chosen. @throws ProblemError where it is guessed first */
export function newPasswordHash(password: string, known: readonly string[]): Promise<string> {
  refuseGuessable(password, known);
  return hashPassword(password);
}

/** `scrypt$salt$key`, both base64url. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16);
  return written(salt, await derive(password.normalize('NFKC'), salt, KEY_LENGTH, COST));
}

const written = (salt: Buffer, key: Buffer): string =>
  ['scrypt', salt.toString('base64url'), key.toString('base64url')].join('$');

/** Fits no password that anybody knows, and takes as long to find that out as any other. */
export const NO_PASSWORD = written(randomBytes(16), randomBytes(KEY_LENGTH));

export async function passwordFits(password: string, hash: string): Promise<boolean> {
  const [scheme, salt = '', key = ''] = hash.split('$');
  const wanted = Buffer.from(key, 'base64url');
  const given = await derive(password.normalize('NFKC'), Buffer.from(salt, 'base64url'), KEY_LENGTH, COST);
  return scheme === 'scrypt' && wanted.length === given.length && timingSafeEqual(wanted, given);
}
