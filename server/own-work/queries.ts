import { OwnWork } from '../../contract/assignments.ts';
import { SUMMARY_COLUMNS, selectQuestions } from '../assignments/queries.ts';
import { select, type Queries } from '../db/database.ts';

const Row = OwnWork.shape.assignment.omit({ questions: true }).extend({ versions: OwnWork.shape.versions });

/** What a student has to do and has done, without a word about drafts of feedback. */
export async function selectOwnWork(db: Queries, student: string): Promise<OwnWork[]> {
  const rows = await select(
    db,
    Row,
    `select ${SUMMARY_COLUMNS}, a.brief, a.formats, c.put_aside_at is not null as aside,
       a.attempts - (select count(*)::int from submissions s
         where s.assignment = a.id and s.student = $1 and s.withdrawn_at is null) as "attemptsLeft",
       (select coalesce(jsonb_agg(jsonb_build_object('submission', s.id, 'version', s.version, 'handedInAt', s.handed_in_at,
            'returnedAt', s.returned_at, 'withdrawnAt', s.withdrawn_at, 'canWithdraw', s.opened_at is null,
            'files', (select coalesce(jsonb_agg(f.name order by f.position), '[]') from submission_files f where f.submission = s.id))
          order by s.version desc), '[]')
        from submissions s where s.assignment = a.id and s.student = $1) as versions
     from assignments a join courses c on c.id = a.course
     join enrolments e on e.course = c.id and e.person = $1 and e.role in ('student', 'left')
       and (a.open and e.role = 'student' or exists (
       select from submissions s where s.assignment = a.id and s.student = $1))
     order by a.due_at nulls last, a.title, a.id`,
    [student],
  );
  return Promise.all(
    rows.map(async ({ versions, ...assignment }) => ({
      assignment: { ...assignment, questions: await selectQuestions(db, assignment.id) },
      versions,
    })),
  );
}
