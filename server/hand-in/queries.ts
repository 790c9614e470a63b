import { z } from 'zod';
import type { Format } from '../../contract/folio.ts';
import { AssignmentOverview } from '../../contract/assignments.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';

const RuleRow = z.object({
  aside: z.boolean(),
  attempts: z.int().nullable(),
  used: z.int(),
  formats: AssignmentOverview.shape.formats,
});

/**
 * Refuses what is handed in where nothing comes in any more, or not in this form. Call in the transaction that keeps it.
 * @param formats of the files; undefined where answers were typed
 */
export async function refuseByRules(
  tx: Queries,
  assignment: string,
  student: string,
  formats: readonly z.infer<typeof Format>[] = [],
): Promise<void> {
  await tx.query('select from assignments where id = $1 for share', [assignment]);
  const rules = (await selectOne(
    tx,
    RuleRow,
    `select c.put_aside_at is not null as aside, a.attempts, a.formats, (select count(*)::int from submissions s
         where s.assignment = a.id and s.student = $2 and s.withdrawn_at is null) as used
     from assignments a join courses c on c.id = a.course where a.id = $1`,
    [assignment, student],
  ))!;
  if (rules.aside) throw problems.courseAside();
  if (rules.attempts !== null && rules.used >= rules.attempts) throw problems.noAttemptLeft(rules.attempts);
  const astray = formats.find(
    (format) => rules.formats !== null && !(rules.formats as readonly string[]).includes(format),
  );
  if (astray) throw problems.formatRefused(rules.formats!);
}

/** Whether somebody is a student of the course that an assignment is set in. */
export async function learnsIn(db: Queries, assignment: string, person: string): Promise<boolean> {
  const rows = await db.query(
    `select 1 as one from assignments a join enrolments e on e.course = a.course
     where a.id = $1 and e.person = $2 and e.role = 'student'`,
    [assignment, person],
  );
  return rows.length > 0;
}
