import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { Invitation, Invited } from '../../contract/roster.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { enrol } from '../school/people.ts';

/** Somebody is asked into a course; asked twice is asked once. */
export async function insertInvitation(
  tx: Queries,
  one: { course: string; person: string; role: 'teacher' | 'student'; name: string; by: string },
): Promise<void> {
  await tx.query(
    `insert into course_invitations (course, person, role, name, invited_by) values ($1, $2, $3, $4, $5)
     on conflict (course, person) do update set role = excluded.role, name = excluded.name`,
    [one.course, one.person, one.role, one.name, one.by],
  );
}

/** Who is asked into a course and has not answered. */
export const selectInvited = (db: Queries, course: string): Promise<Invited[]> =>
  select(
    db,
    Invited,
    `select person as id, name, role = 'teacher' as teaches, made_at as "madeAt" from course_invitations i
     where course = $1 and not exists (select from enrolments e
       where e.course = i.course and e.person = i.person and e.role <> 'left') order by name, person`,
    [course],
  );

/** What somebody is asked into. */
export const selectInvitations = (db: Queries, person: string): Promise<Invitation[]> =>
  select(
    db,
    Invitation,
    `select i.course, c.title, i.role = 'teacher' as teaches, p.name as "invitedBy" from course_invitations i
     join courses c on c.id = i.course left join people p on p.id = i.invited_by
     where i.person = $1 and not exists (select from enrolments e
       where e.course = i.course and e.person = i.person and e.role <> 'left') order by i.made_at, i.course`,
    [person],
  );

/**
 * Whoever is asked says yes or no. Call in a transaction.
 * @returns false where they are not asked any more
 */
export async function answerInvitation(
  tx: Queries,
  { course, person, accept }: { course: string; person: string; accept: boolean },
): Promise<boolean> {
  const found = await selectOne(
    tx,
    z.object({ person: Id, role: z.enum(['teacher', 'student']) }),
    'delete from course_invitations where course = $1 and person = $2 returning person, role',
    [course, person],
  );
  if (found && accept) await enrol(tx, course, person, found.role);
  return found !== undefined;
}
