import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { Adjustment, type Standing } from '../../contract/grading.ts';
import { NAMELESS, SHOWN_ID } from '../access/visible.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { NEWEST } from '../submissions/state.ts';

export const selectAdjustment = (db: Queries, submission: string): Promise<Adjustment | undefined> =>
  selectOne(
    db,
    Adjustment,
    'select (extra * 100)::int as extra, (total * 100)::int as total, reason from adjustments where submission = $1',
    [submission],
  );

export async function putAdjustment(
  db: Queries,
  submission: string,
  adjustment: Adjustment | null,
  person: string,
): Promise<void> {
  if (adjustment === null || (adjustment.extra === null && adjustment.total === null)) {
    await db.query('delete from adjustments where submission = $1', [submission]);
    return;
  }
  await db.query(
    `insert into adjustments (submission, extra, total, reason, set_by)
     values ($1, $2::int / 100.0, $3::int / 100.0, $4, $5)
     on conflict (submission) do update set extra = excluded.extra, total = excluded.total, reason = excluded.reason,
       set_by = excluded.set_by, set_at = now()`,
    [submission, adjustment.extra, adjustment.total, adjustment.reason, person],
  );
}

/** Which student of an assignment is meant, by the id that whoever asks knows them by. */
export const selectStudent = (db: Queries, assignment: string, shown: string): Promise<Student | undefined> =>
  selectOne(
    db,
    Student,
    `select p.id, ${NAMELESS} as nameless from assignments a
     join enrolments e on e.course = a.course and e.role in ('student', 'left') join people p on p.id = e.person
     left join submissions s on s.assignment = a.id and s.student = p.id and ${NEWEST}
     where a.id = $1 and ${SHOWN_ID} = $2`,
    [assignment, shown],
  );
const Student = z.object({ id: Id, nameless: z.boolean() });
type Student = z.infer<typeof Student>;

/**
 * @param nameless whoever decides does not see how much time was given, so that stays as it is
 * @returns false where this is no student of the assignment's course
 */
export async function putStanding(
  db: Queries,
  {
    assignment,
    student,
    person,
    nameless = false,
  }: { assignment: string; student: string; person: string; nameless?: boolean },
  { flag, extendedUntil }: Standing,
): Promise<boolean> {
  const rows = await db.query(
    `insert into standings (assignment, student, flag, extended_until, set_by)
     select a.id, e.person, $3, $4, $5 from assignments a
     join enrolments e on e.course = a.course and e.person = $2 and e.role = 'student' where a.id = $1
     on conflict (assignment, student) do update set flag = excluded.flag,
       extended_until = case when $6 then standings.extended_until else excluded.extended_until end,
       set_by = excluded.set_by, set_at = now()
     returning 1 as one`,
    [assignment, student, flag, nameless ? null : extendedUntil, person, nameless],
  );
  return rows.length > 0;
}

const BY = {
  score: 'select chosen_by as by from scores where submission = $1 and criterion = $2',
  points: 'select given_by as by from question_points where submission = $1 and question = $2',
  adjustment: 'select set_by as by from adjustments where submission = $1',
};

/** Who gave what stands there; undefined where nothing does. */
export const selectBy = async (db: Queries, what: keyof typeof BY, ids: string[]): Promise<string | undefined> =>
  (await selectOne(db, z.object({ by: Id }), BY[what], ids))?.by;
