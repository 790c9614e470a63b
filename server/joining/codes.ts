import { createHash, randomInt } from 'node:crypto';
import { z } from 'zod';
import { Id, Instant } from '../../contract/basics.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

/** Letters and digits that nobody takes for one another, however they are printed (Crockford's base 32). */
const ALPHABET = '0123456789abcdefghjkmnpqrstvwxyz';
const LENGTH = 12;
const GROUP = 4;

/** Days that each works. */
const DAYS = { school: 30, person: 60, course: 14 };

/** 60 bits; as it is printed: `k3x9-0f7m-q2wd`. */
function newCode(): string {
  const letters = Array.from({ length: LENGTH }, () => ALPHABET[randomInt(ALPHABET.length)]!).join('');
  return letters.match(new RegExp(`.{${GROUP}}`, 'g'))!.join('-');
}

/** However it was typed: what looks alike is the same letter. */
function hashOf(code: string): Buffer {
  const plain = code
    .toLowerCase()
    .replace(/o/g, '0')
    .replace(/[il]/g, '1')
    .replace(/[^0-9a-z]/g, '');
  return createHash('sha256').update(plain).digest();
}

export type Opening = { opens: 'school' } | { opens: 'person'; person: string } | { opens: 'course'; course: string };

/** A new way in; those to the same that were there before do not work any more. @returns its code, which is kept nowhere */
export async function makeCode(
  tx: Queries,
  opening: Opening,
  madeBy: string | null,
): Promise<{ code: string; expiresAt: string }> {
  const code = newCode();
  const [person, course] = ['person' in opening ? opening.person : null, 'course' in opening ? opening.course : null];
  await tx.query(
    `delete from codes where opens = $1 and used_at is null
       and person is not distinct from $2::uuid and course is not distinct from $3::uuid`,
    [opening.opens, person, course],
  );
  const row = await selectOne(
    tx,
    z.object({ expiresAt: Instant }),
    `insert into codes (code_hash, opens, person, course, made_by, expires_at)
     values ($1, $2, $3, $4, $5, now() + make_interval(days => $6)) returning expires_at as "expiresAt"`,
    [hashOf(code), opening.opens, person, course, madeBy, DAYS[opening.opens]],
  );
  return { code, expiresAt: row!.expiresAt };
}

const CodeRow = z.object({
  opens: z.enum(['school', 'person', 'course']),
  person: Id.nullable(),
  course: Id.nullable(),
  title: z.string().nullable(),
  name: z.string().nullable(),
  login: z.string().nullable(),
  expired: z.boolean(),
  used: z.boolean(),
});
export type CodeRow = z.infer<typeof CodeRow>;

/** What a code opens; undefined where there is no such code. In a transaction it is held until its end, so that it is used once. */
export const selectCode = (db: Queries, code: string, { hold = false } = {}): Promise<CodeRow | undefined> =>
  selectOne(
    db,
    CodeRow,
    `select k.opens, k.person, k.course, c.title, p.name, p.login, k.expires_at < now() as expired, k.used_at is not null as used
     from codes k left join courses c on c.id = k.course left join people p on p.id = k.person
     where k.code_hash = $1 ${hold ? 'for update of k' : ''}`,
    [hashOf(code)],
  );

export async function markUsed(tx: Queries, code: string): Promise<void> {
  await tx.query('update codes set used_at = now() where code_hash = $1', [hashOf(code)]);
}

export async function deleteCourseCode(db: Queries, course: string): Promise<void> {
  await db.query("delete from codes where opens = 'course' and course = $1", [course]);
}

/** Until when the code of a course works; null where there is none. */
export async function selectCourseCode(db: Queries, course: string): Promise<string | null> {
  const [row] = await select(
    db,
    z.object({ expiresAt: Instant }),
    `select expires_at as "expiresAt" from codes where opens = 'course' and course = $1 and expires_at > now()`,
    [course],
  );
  return row?.expiresAt ?? null;
}

/** Whoever comes with an old one is told so for a while. */
export async function purgeCodes(db: Queries): Promise<void> {
  await db.query("delete from codes where expires_at < now() - interval '90 days'");
}
