import { loginFor } from '#core/roster';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { endSessions } from '../http/person-of.ts';
import { forgetBrowsers } from '../sessions/known-browsers.ts';
import { addPerson, enrol, isEmptySchool, nameSchool } from '../school/people.ts';
import { markUsed, selectCode, type CodeRow } from './codes.ts';

/** @throws ProblemError saying why a code opens nothing */
export async function codeThatOpens(db: Queries, code: string, hold = false): Promise<CodeRow> {
  const found = await selectCode(db, code, { hold });
  if (!found || (found.opens === 'school' && !(await isEmptySchool(db)))) throw problems.codeUnknown();
  if (found.used && found.opens === 'person') throw problems.codeUsed();
  if (found.expired) throw problems.codeExpired();
  return found;
}

/** Whose account it is from now on, with the password that they chose. Call in a transaction. @returns the person */
export async function joinWith(
  tx: Queries,
  code: string,
  { name, passwordHash }: { name: string | undefined; passwordHash: string },
): Promise<string> {
  const found = await codeThatOpens(tx, code, true);
  const person = found.person ?? (found.course && (await whoJoins(tx, found.course, name)));
  if (!person) throw problems.codeUnknown();
  await tx.query('update people set password_hash = $2, came_in_at = coalesce(came_in_at, now()) where id = $1', [
    person,
    passwordHash,
  ]);
  await endSessions(tx, person);
  await forgetBrowsers(tx, person);
  if (found.opens === 'person') await markUsed(tx, code);
  return person;
}

/** With the code of a course: the student of that name who has not come in yet, or somebody new. */
async function whoJoins(tx: Queries, course: string, name: string | undefined): Promise<string> {
  if (!name) throw problems.nameMissing();
  const namesakes = await select(
    tx,
    z.object({ id: Id, isIn: z.boolean() }),
    `select p.id, p.came_in_at is not null as "isIn" from enrolments e join people p on p.id = e.person
     where e.course = $1 and e.role = 'student' and lower(p.name) = lower($2)`,
    [course, name],
  );
  const waiting = namesakes.filter(({ isIn }) => !isIn);
  if (waiting.length === 1) return waiting[0]!.id;
  // Nobody may take the place of somebody who is there.
  if (namesakes.length > 0) throw problems.nameThere();
  const person = await addPerson(tx, { name, login: await freeLogin(tx, name), passwordHash: null, madeIn: course });
  await enrol(tx, course, person, 'student');
  return person;
}

/** Names the school and makes its first teacher, who is its steward. Call in a transaction. */
export async function openSchoolWith(
  tx: Queries,
  code: string,
  { school, zone, name, passwordHash }: { school: string; zone: string; name: string; passwordHash: string },
): Promise<string> {
  if ((await codeThatOpens(tx, code, true)).opens !== 'school') throw problems.codeUnknown();
  await nameSchool(tx, school);
  await tx.query('update school set zone = $1', [zone]);
  const person = await addPerson(tx, { name, login: await freeLogin(tx, name), passwordHash });
  await tx.query('update people set steward = true where id = $1', [person]);
  await markUsed(tx, code);
  return person;
}

/** What nobody types yet to sign in, nor will until the end of the transaction that it is called in. */
export async function freeLogin(tx: Queries, name: string): Promise<string> {
  await tx.query("select pg_advisory_xact_lock(hashtext('logins'))");
  const plain = loginFor(name, new Set());
  const taken = await select(tx, z.object({ login: z.string() }), 'select login from people where login like $1', [
    `${plain.replace(/[\\%_]/g, '\\$&')}%`,
  ]);
  return loginFor(name, new Set(taken.map(({ login }) => login)));
}

export const selectLogin = async (db: Queries, person: string): Promise<string> =>
  (await selectOne(db, z.object({ login: z.string() }), 'select login from people where id = $1', [person]))!.login;
