import { isLate, workState } from '#core/workflow';
import { z } from 'zod';
import { Waiting } from '../../contract/assignments.ts';
import { Id, Instant } from '../../contract/basics.ts';
import { Standing } from '../../contract/grading.ts';
import { SHOWN_NAME } from '../access/visible.ts';
import { SUMMARY_COLUMNS } from '../assignments/queries.ts';
import { select, type Queries } from '../db/database.ts';
import { NEWEST, UNANSWERED, WORK_FACTS, WorkFacts } from '../submissions/state.ts';

/** What is over asks for nothing any more. */
const TAUGHT_BY = `join courses c on c.id = a.course and c.put_aside_at is null
  join enrolments e on e.course = c.id and e.person = $1 and e.role = 'teacher'`;

const ToMarkRow = WorkFacts.extend({
  submission: Id,
  student: z.string(),
  assignment: Id,
  due: Instant.nullable(),
  ...Standing.shape,
});

export async function selectToMark(db: Queries, teacher: string): Promise<Waiting['toMark']> {
  const rows = await select(
    db,
    ToMarkRow,
    `select s.id as submission, ${SHOWN_NAME} as student, a.id as assignment,
       coalesce(x.extended_until, a.due_at) as due, x.flag, x.extended_until as "extendedUntil", ${WORK_FACTS}
     from submissions s join assignments a on a.id = s.assignment ${TAUGHT_BY} join people p on p.id = s.student
     left join standings x on x.assignment = a.id and x.student = s.student
     where s.returned_at is null and s.ready_at is null and ${NEWEST}
     order by s.handed_in_at, s.id`,
    [teacher],
  );
  return rows.map(
    ({ submission, student, assignment, version, handedInAt, backAgain, flag, extendedUntil, ...row }) => ({
      ...{ submission, student, assignment, version, handedInAt, backAgain },
      standing: { flag, extendedUntil },
      late: isLate(handedInAt, row.due),
      state: workState({ ...row, backAgain }),
    }),
  );
}

const Unanswered = Waiting.shape.unanswered.element;

export const selectUnanswered = (db: Queries, teacher: string): Promise<Waiting['unanswered']> =>
  select(
    db,
    Unanswered,
    `select s.id as submission, r.id as remark, p.name as student, y.text, y.recording is not null as spoken,
       y.made_at as at, a.id as assignment
     from replies y join remarks r on r.id = y.remark join submissions s on s.id = r.submission
     join assignments a on a.id = s.assignment ${TAUGHT_BY} join people p on p.id = s.student
     where r.put_aside_at is null and ${UNANSWERED}
     order by y.made_at`,
    [teacher],
  );

const Taught = Waiting.shape.assignments.element;

export const selectTaught = (db: Queries, teacher: string): Promise<Waiting['assignments']> =>
  select(
    db,
    Taught,
    `select ${SUMMARY_COLUMNS},
       (select count(*)::int from enrolments m where m.course = c.id and m.role = 'student') as students,
       (select count(distinct s.student)::int from submissions s where s.assignment = a.id and s.withdrawn_at is null) as "handedIn",
       (select count(*)::int from submissions s where s.assignment = a.id and s.ready_at is not null and ${NEWEST}) as ready,
       (select count(*)::int from submissions s where s.assignment = a.id and s.returned_at is not null and ${NEWEST}) as returned
     from assignments a ${TAUGHT_BY}
     order by a.due_at nulls last, a.title`,
    [teacher],
  );
