import type { Known } from '#core/roster';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { Member } from '../../contract/roster.ts';
import { LOOKS_AFTER, NAMELESS, STAFF } from '../access/visible.ts';
import { DatabaseError, select, selectOne, UNIQUE_VIOLATION, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';

const MEMBER = `select p.id, p.name, p.login, coalesce(p.mail, '') as mail, coalesce(p.number, '') as number,
    e.role = 'teacher' as teaches, e.role = 'left' as "left", p.came_in_at as "cameInAt",
    (select coalesce(greatest(count(*) filter (where not ${NAMELESS}), max(1)), 0)::int
     from submissions s join assignments a on a.id = s.assignment
     where a.course = e.course and s.student = p.id) as works
  from enrolments e join people p on p.id = e.person where e.course = $1`;

/** Everybody of a course, its teachers first. */
export const selectMembers = (db: Queries, course: string): Promise<Member[]> =>
  select(db, Member, `${MEMBER} order by teaches desc, "left", p.name, p.id`, [course]);

export const selectMember = (db: Queries, course: string, person: string): Promise<Member | undefined> =>
  selectOne(db, Member, `${MEMBER} and p.id = $2`, [course, person]);

const KnownRow = z.object({
  ...{ id: Id, name: z.string(), mail: z.string(), number: z.string() },
  ...{ here: z.enum(['teacher', 'student', 'left']).nullable(), staff: z.boolean(), own: z.boolean() },
});

/**
 * Everybody whom a line of a list may mean: those of the course, and those whom the school knows by mail or number.
 * @param teacher who brings the list
 * @param ids of others whom it names in our own words
 */
export const selectKnown = (
  db: Queries,
  { course, teacher, ids = [] }: { course: string; teacher: string; ids?: readonly string[] },
): Promise<Known[]> =>
  select(
    db,
    KnownRow,
    `select p.id, p.name, coalesce(p.mail, '') as mail, coalesce(p.number, '') as number, e.role as here, ${STAFF} as staff,
       p.came_in_at is null and ${LOOKS_AFTER} as own
     from people p left join enrolments e on e.person = p.id and e.course = $2
     where e.person is not null or p.mail is not null or p.number is not null or p.id = any($3::uuid[])`,
    [teacher, course, ids],
  );

/** Corrects how somebody is called and known. @throws ProblemError where somebody else has the address or number */
export async function keepMember(tx: Queries, person: string, body: Parameters<typeof updateMember>[2]): Promise<void> {
  try {
    await updateMember(tx, person, body);
  } catch (error) {
    if (error instanceof DatabaseError && error.code === UNIQUE_VIOLATION) throw problems.mailOrNumberTaken();
    throw error;
  }
}

export async function updateMember(
  tx: Queries,
  person: string,
  { name, mail, number }: { name?: string | undefined; mail?: string | undefined; number?: string | undefined },
): Promise<void> {
  await tx.query(
    `update people set name = coalesce($2, name), mail = case when $3::text is null then mail else nullif($3, '') end,
       number = case when $4::text is null then number else nullif($4, '') end where id = $1`,
    [person, name ?? null, mail ?? null, number ?? null],
  );
}

/** Those who learn in the course and have handed in nothing in it; who is nowhere else then and never came in is forgotten. */
export async function deleteEnrolments(tx: Queries, course: string, people: readonly string[]): Promise<string[]> {
  const rows = await select(
    tx,
    z.object({ person: Id }),
    `delete from enrolments e where e.course = $1 and e.role = 'student'
       and e.person in (select value::uuid from jsonb_array_elements_text($2::jsonb))
       and not exists (select from submissions s join assignments a on a.id = s.assignment
         where a.course = e.course and s.student = e.person)
     returning e.person`,
    [course, JSON.stringify(people)],
  );
  const ids = rows.map(({ person }) => person);
  await tx.query('delete from course_invitations where course = $1 and person = any($2::uuid[])', [course, people]);
  await tx.query(
    `delete from people p where p.id in (select value::uuid from jsonb_array_elements_text($1::jsonb)) and p.came_in_at is null
       and not exists (select from enrolments e where e.person = p.id)
       and not exists (select from submissions s where s.student = p.id)`,
    [JSON.stringify(ids)],
  );
  return ids;
}

export const selectByMail = (db: Queries, mail: string): Promise<{ id: string; name: string } | undefined> =>
  selectOne(db, z.object({ id: Id, name: z.string() }), 'select id, name from people where lower(mail) = lower($1)', [
    mail,
  ]);

/** @returns false where this is nobody who learns, or has learned, in the course */
export async function updateLeft(db: Queries, course: string, person: string, left: boolean): Promise<boolean> {
  const rows = await db.query(
    `update enrolments set role = case when $3 then 'left' else 'student' end
     where course = $1 and person = $2 and role in ('student', 'left') returning 1 as one`,
    [course, person, left],
  );
  return rows.length > 0;
}
