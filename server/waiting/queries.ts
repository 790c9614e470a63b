import { isLate, workState, type QueueItem } from '#core/workflow';
import { z } from 'zod';
import { Waiting, type Waited } from '../../contract/waiting.ts';
import { Id, Instant } from '../../contract/basics.ts';
import { Standing } from '../../contract/grading.ts';
import { blindTo, NAMELESS, SHOWN_NAME, shownAt, viewerIn } from '../access/visible.ts';
import { withoutTime } from '../assignments/marking.ts';
import { SUMMARY_COLUMNS } from '../assignments/queries.ts';
import { select, type Queries } from '../db/database.ts';
import { BACK_AGAIN, NEWEST, unanswered, workFacts, WorkFacts } from '../submissions/state.ts';

/** What is over asks for nothing any more. */
const TAUGHT_BY = `join courses c on c.id = a.course and c.put_aside_at is null
  join enrolments e on e.course = c.id and e.person = $1 and e.role = 'teacher'`;

/** Whether a work `s` has a score for each criterion of its assignment `a`: a second marking asks for nothing more. */
const SCORED = `not exists (select from criteria k where k.assignment = a.id and k.version = a.rubric_version
  and not exists (select from scores x where x.submission = s.id and x.criterion = k.id))`;

const QueueRow = z.object({
  kind: z.enum(['new', 'back', 'reply']),
  submission: Id,
  remark: Id.nullable(),
  course: Id,
  at: Instant,
});
type QueueRow = z.infer<typeof QueueRow>;

/** Everything that waits, in no order: thousands of works over a year, so no more of each than the queue needs. */
export const selectQueue = (db: Queries, teacher: string): Promise<(QueueRow & QueueItem)[]> =>
  select(
    db,
    QueueRow,
    `select case when ${BACK_AGAIN} then 'back' else 'new' end as kind, s.id as submission, null as remark, a.course,
       s.handed_in_at as at
     from submissions s join assignments a on a.id = s.assignment ${TAUGHT_BY}
     where s.returned_at is null and s.ready_at is null and ${NEWEST} and not (c.second_marking and ${SCORED})
     union all
     select 'reply', s.id, r.id, a.course, y.made_at
     from replies y join remarks r on r.id = y.remark join submissions s on s.id = r.submission
     join assignments a on a.id = s.assignment ${TAUGHT_BY}
     where r.put_aside_at is null and ${unanswered(viewerIn('$1'))}`,
    [teacher],
  );

const WorkRow = WorkFacts.extend({
  submission: Id,
  student: z.string(),
  assignment: z.string(),
  due: Instant.nullable(),
  remarksBefore: z.int(),
  dealtBefore: z.int(),
  nameless: z.boolean(),
  shown: Instant,
  ...Standing.shape,
});

const AnswerRow = z.object({
  submission: Id,
  student: z.string(),
  assignment: z.string(),
  remark: Id,
  text: z.string(),
  spoken: z.boolean(),
});

/** What is to be shown of some that wait, in their order. */
export async function selectWaited(db: Queries, items: readonly QueueRow[], person: string): Promise<Waited[]> {
  const works = await selectWorks(
    db,
    items.filter(({ remark }) => remark === null).map(({ submission }) => submission),
    person,
  );
  const answers = await selectAnswers(
    db,
    items.flatMap(({ remark }) => remark ?? []),
    person,
  );
  return items.flatMap(({ kind, submission, remark, at }) => {
    const found = remark === null ? works.get(submission) : answers.get(remark);
    return found ? { kind, submission, at, ...found } : [];
  });
}

type Shown = Omit<Waited, 'kind' | 'submission' | 'at'> & Partial<Pick<Waited, 'at'>>;

async function selectWorks(db: Queries, submissions: readonly string[], person: string): Promise<Map<string, Shown>> {
  const rows = await select(
    db,
    WorkRow,
    `select s.id as submission, ${SHOWN_NAME} as student, a.title as assignment,
       coalesce(x.extended_until, a.due_at) as due, x.flag, x.extended_until as "extendedUntil", ${NAMELESS} as nameless,
       ${shownAt('s.handed_in_at')} as shown, ${workFacts(viewerIn('$2'))}, b.remarks as "remarksBefore", b.dealt as "dealtBefore"
     from submissions s join assignments a on a.id = s.assignment join people p on p.id = s.student
     left join standings x on x.assignment = a.id and x.student = s.student
     left join lateral (
       select count(r.id)::int as remarks, count(r.dealt_at)::int as dealt
       from remarks r where not ${blindTo(viewerIn('$2'))} and r.put_aside_at is null and not r.private and r.author <> s.student
         and r.submission = (
         select o.id from submissions o where o.assignment = s.assignment and o.student = s.student
           and o.version < s.version and o.withdrawn_at is null and o.returned_at is not null
         order by o.version desc limit 1)) b on true
     where s.id = any($1::uuid[])`,
    [submissions, person],
  );
  return new Map(
    rows.map(({ submission, student, assignment, due, remarksBefore, dealtBefore, nameless, shown, ...facts }) => {
      const { version, handedInAt, flag, extendedUntil } = facts;
      const standing = withoutTime({ flag, extendedUntil }, nameless);
      const dealt = remarksBefore > 0 ? { done: dealtBefore, of: remarksBefore } : null;
      const work = { version, late: isLate(handedInAt, due), state: workState(facts), standing, dealt };
      return [submission, { at: shown, student, assignment, work, answer: null }];
    }),
  );
}

async function selectAnswers(db: Queries, remarks: readonly string[], person: string): Promise<Map<string, Shown>> {
  const rows = await select(
    db,
    AnswerRow,
    `select s.id as submission, ${SHOWN_NAME} as student, a.title as assignment, r.id as remark, y.text,
       y.recording is not null as spoken
     from replies y join remarks r on r.id = y.remark join submissions s on s.id = r.submission
     join assignments a on a.id = s.assignment join people p on p.id = s.student
     where r.id = any($1::uuid[]) and ${unanswered(viewerIn('$2'))}`,
    [remarks, person],
  );
  return new Map(
    rows.map(({ remark, student, assignment, text, spoken }) => [
      remark,
      { student, assignment, work: null, answer: { remark, text, spoken } },
    ]),
  );
}

const Taught = Waiting.shape.assignments.element;

/** Whether an assignment `a` is behind its teachers: it was due, and all that came in is returned. */
const DONE = `(coalesce(a.due_at < now(), false)
  and (exists (select from submissions s where s.assignment = a.id) or exists (select from entered_grades g where g.assignment = a.id))
  and not exists (select from submissions s where s.assignment = a.id and s.returned_at is null and ${NEWEST}))`;

/** What is to be marked comes first, what was marked last above what was marked earlier. */
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
     order by ${DONE}, case when not ${DONE} then a.due_at end nulls last, a.due_at desc, a.title`,
    [teacher],
  );
