import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { selectOne, type Queries } from '../db/database.ts';

export async function addPerson(
  db: Queries,
  { name, login, passwordHash }: { name: string; login: string; passwordHash: string },
): Promise<string> {
  const id = randomUUID();
  await db.query('insert into people (id, name, login, password_hash) values ($1, $2, $3, $4)', [
    id,
    name,
    login.toLowerCase(),
    passwordHash,
  ]);
  return id;
}

export async function addCourse(db: Queries, title: string): Promise<string> {
  const id = randomUUID();
  await db.query('insert into courses (id, title) values ($1, $2)', [id, title]);
  return id;
}

export async function findOrAddCourse(db: Queries, title: string): Promise<string> {
  const found = await selectOne(db, z.object({ id: Id }), 'select id from courses where title = $1', [title]);
  return found?.id ?? addCourse(db, title);
}

export async function enrol(db: Queries, course: string, person: string, role: 'teacher' | 'student'): Promise<void> {
  await db.query('insert into enrolments (course, person, role) values ($1, $2, $3)', [course, person, role]);
}

/** In a sample school anybody can sign in as anybody, with one click. */
export async function isSampleSchool(db: Queries): Promise<boolean> {
  return (await db.query('select 1 as one from school where sample')).length > 0;
}

export async function nameSchool(db: Queries, name: string): Promise<void> {
  await db.query('insert into school (name, sample) values ($1, false) on conflict do nothing', [name]);
}
