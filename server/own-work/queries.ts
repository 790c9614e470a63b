import { z } from 'zod';
import { OwnWork } from '../../contract/assignments.ts';
import { Id } from '../../contract/basics.ts';
import { hasRemarks } from '../access/visible.ts';
import { SUMMARY_COLUMNS, selectQuestions } from '../assignments/queries.ts';
import { selectHandouts } from '../handouts/queries.ts';
import { select, type Queries } from '../db/database.ts';

const Row = OwnWork.shape.assignment
  .omit({ questions: true, handouts: true })
  .extend({ versions: OwnWork.shape.versions });

const SPOKEN = `${hasRemarks('s')} and r.submission = s.id and r.recording is not null and r.put_aside_at is null and not r.private`;

const AnswerRow = OwnWork.shape.answers.element.extend({ assignment: Id });

/** Where somebody else had the last word about a remark on a student's own work. */
const selectAnswers = (db: Queries, student: string): Promise<z.infer<typeof AnswerRow>[]> =>
  select(
    db,
    AnswerRow,
    `select s.assignment, s.id as submission, r.id as remark, p.name as author, y.text, y.recording is not null as spoken,
       y.made_at as at
     from submissions s join remarks r on r.submission = s.id join replies y on y.remark = r.id join people p on p.id = y.author
     where s.student = $1 and s.withdrawn_at is null and ${hasRemarks('s')} and r.put_aside_at is null and not r.private
       and r.settled_at is null and y.author <> $1 and not exists (select from replies later where later.remark = y.remark
         and (later.made_at, later.id) > (y.made_at, y.id))
     order by y.made_at desc, y.id`,
    [student],
  );

/** What a student has to do and has done, without a word about drafts of feedback. */
export async function selectOwnWork(db: Queries, student: string): Promise<OwnWork[]> {
  const rows = await select(
    db,
    Row,
    `select ${SUMMARY_COLUMNS}, a.brief, a.formats, c.put_aside_at is not null as aside,
       a.attempts - (select count(*)::int from submissions s
         where s.assignment = a.id and s.student = $1 and s.withdrawn_at is null) as "attemptsLeft",
       (select coalesce(jsonb_agg(jsonb_build_object('submission', s.id, 'version', s.version, 'handedInAt', s.handed_in_at,
            'returnedAt', s.returned_at,
            'corrected', s.returned_at is null and exists (select from returns r where r.submission = s.id), 'withdrawnAt', s.withdrawn_at,
            'spoken', (select count(*)::int from remarks r where ${SPOKEN}),
            'heard', (select count(*)::int from remarks r join listenings l on l.recording = r.recording and l.person = $1
              and l.finished_at is not null where ${SPOKEN}), 'canWithdraw', s.opened_at is null,
            'files', (select coalesce(jsonb_agg(f.name order by f.position), '[]') from submission_files f where f.submission = s.id))
          order by s.version desc), '[]')
        from submissions s where s.assignment = a.id and s.student = $1) as versions
     from assignments a join courses c on c.id = a.course
     join enrolments e on e.course = c.id and e.person = $1 and e.role in ('student', 'left')
       and not c.second_marking and (a.open and e.role = 'student' or exists (
       select from submissions s where s.assignment = a.id and s.student = $1))
     order by a.due_at nulls last, a.title, a.id`,
    [student],
  );
  const answers = await selectAnswers(db, student);
  return Promise.all(
    rows.map(async ({ versions, ...assignment }) => ({
      assignment: {
        ...assignment,
        questions: await selectQuestions(db, assignment.id),
        handouts: await selectHandouts(db, assignment.id, student),
      },
      versions,
      answers: answers.filter((one) => one.assignment === assignment.id),
    })),
  );
}
