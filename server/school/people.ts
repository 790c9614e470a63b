import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { NO_PASSWORD } from '../sessions/passwords.ts';

/**
 * @param passwordHash null for whoever chooses one when they come in
 * @param madeIn the course whose teachers look after the entry; null where only a steward does
 */
export async function addPerson(
  db: Queries,
  {
    name,
    login,
    passwordHash,
    madeIn = null,
  }: { name: string; login: string; passwordHash: string | null; madeIn?: string | null },
): Promise<string> {
  const id = randomUUID();
  await db.query(
    `insert into people (id, name, login, password_hash, came_in_at, made_in)
     values ($1, $2, $3, $4, case when $5 then now() end, $6)`,
    [id, name, login.toLowerCase(), passwordHash ?? NO_PASSWORD, passwordHash !== null, madeIn],
  );
  return id;
}

export async function addCourse(db: Queries, title: string): Promise<string> {
  const id = randomUUID();
  await db.query('insert into courses (id, title) values ($1, $2)', [id, title]);
  return id;
}

export const selectTitle = async (db: Queries, course: string): Promise<string> =>
  (await selectOne(db, z.object({ title: z.string() }), 'select title from courses where id = $1', [course]))!.title;

export async function findOrAddCourse(db: Queries, title: string): Promise<string> {
  const found = await selectOne(
    db,
    z.object({ id: Id }),
    'select id from courses where title = $1 and not second_marking',
    [title],
  );
  return found?.id ?? addCourse(db, title);
}

export async function enrol(db: Queries, course: string, person: string, role: 'teacher' | 'student'): Promise<void> {
  await db.query(
    `insert into enrolments (course, person, role) values ($1, $2, $3)
     on conflict (course, person) do update set role = excluded.role where enrolments.role = 'left'`,
    [course, person, role],
  );
}

/** In a sample school anybody can sign in as anybody, with one click. */
export async function isSampleSchool(db: Queries): Promise<boolean> {
  return (await db.query('select 1 as one from school where sample')).length > 0;
}

/** Nobody is here yet. */
export async function isEmptySchool(db: Queries): Promise<boolean> {
  return (await db.query('select 1 as one from people limit 1')).length === 0;
}

/** The school; a placeholder before it is set up. */
export const selectSchool = async (db: Queries): Promise<z.infer<typeof SchoolRow>> =>
  (await selectOne(db, SchoolRow, 'select id, name, zone from school')) ?? {
    id: 'school',
    name: 'School',
    zone: 'UTC',
  };
const SchoolRow = z.object({ id: z.string(), name: z.string(), zone: z.string() });

export const selectSchoolName = async (db: Queries): Promise<string | undefined> =>
  (await selectOne(db, z.object({ name: z.string() }), 'select name from school'))?.name;

export async function nameSchool(db: Queries, name: string): Promise<void> {
  await db.query('insert into school (name, sample) values ($1, false) on conflict do nothing', [name]);
}

/** Looks after the people of the school. */
export const isSteward = async (db: Queries, person: string): Promise<boolean> =>
  (await db.query('select 1 as one from people where id = $1 and steward', [person])).length > 0;
