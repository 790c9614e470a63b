import { isLate, workState, type WorkState } from '#core/workflow';
import { z } from 'zod';
import {
  Budget,
  type AssignmentOverview,
  type AssignmentSummary,
  type ClassRow,
  type OwnWork,
  type Waiting,
} from '../../contract/assignments.ts';
import { Id, Instant } from '../../contract/basics.ts';
import { selectQuestions } from '../answers/queries.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { GRADE_COLUMNS, GradeRow, gradeOfRow } from '../submissions/grade-row.ts';

const SummaryRow = z.object({ assignment: Id, title: z.string(), course: z.string(), due_at: Instant.nullable() });
type SummaryRow = z.infer<typeof SummaryRow>;

export const SUMMARY_COLUMNS = 'a.id as assignment, a.title, c.title as course, a.due_at';

export const summaryOfRow = (row: SummaryRow): AssignmentSummary => ({
  id: row.assignment,
  title: row.title,
  course: row.course,
  dueAt: row.due_at,
});

/** How many remarks and scores a work has, of how many; what is put aside does not count. */
const WORK_FACTS = `
  (select count(*)::int from remarks r where r.submission = s.id and r.put_aside_at is null) as remarks,
  ((select count(*) from scores k where k.submission = s.id) +
   (select count(*) from question_points k where k.submission = s.id))::int as scores,
  ((select count(*) from criteria k where k.assignment = s.assignment) +
   (select count(*) from questions q where q.assignment = s.assignment))::int as parts,
  exists (select from submissions o where o.assignment = s.assignment and o.student = s.student
    and o.version < s.version and o.returned_at is not null) as back_again`;

const WorkFacts = z.object({
  version: z.int(),
  handed_in_at: Instant,
  returned_at: Instant.nullable(),
  remarks: z.int(),
  scores: z.int(),
  parts: z.int(),
  back_again: z.boolean(),
});

/** The version that counts; what was withdrawn is not there for a teacher. */
const NEWEST = `s.withdrawn_at is null and not exists (
  select from submissions n where n.assignment = s.assignment and n.student = s.student
    and n.version > s.version and n.withdrawn_at is null)`;

/** Replies of a student after which no teacher has said anything. */
const UNANSWERED = `y.author = s.student and not exists (
  select from replies later where later.remark = y.remark and (later.made_at, later.id) > (y.made_at, y.id))`;

const ToMarkRow = SummaryRow.extend(WorkFacts.shape).extend({ submission: Id, student: z.string() });

export async function selectToMark(db: Queries, teacher: string): Promise<Waiting['toMark']> {
  const rows = await select(
    db,
    ToMarkRow,
    `select ${SUMMARY_COLUMNS}, s.id as submission, p.name as student, s.version, s.handed_in_at, s.returned_at, ${WORK_FACTS}
     from submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course
     join enrolments e on e.course = c.id and e.person = $1 and e.role = 'teacher' join people p on p.id = s.student
     where s.returned_at is null and ${NEWEST}
     order by s.handed_in_at, p.name`,
    [teacher],
  );
  return rows.map((row) => ({
    submission: row.submission,
    student: row.student,
    version: row.version,
    handedInAt: row.handed_in_at,
    late: isLate(row.handed_in_at, row.due_at),
    state: stateOfRow(row),
    assignment: summaryOfRow(row),
  }));
}

const stateOfRow = (row: z.infer<typeof WorkFacts>): WorkState =>
  workState({
    returnedAt: row.returned_at,
    remarks: row.remarks,
    scores: row.scores,
    parts: row.parts,
    backAgain: row.back_again,
  });

const UnansweredRow = SummaryRow.extend({
  submission: Id,
  remark: Id,
  student: z.string(),
  text: z.string(),
  spoken: z.boolean(),
  made_at: Instant,
});

export async function selectUnanswered(db: Queries, teacher: string): Promise<Waiting['unanswered']> {
  const rows = await select(
    db,
    UnansweredRow,
    `select ${SUMMARY_COLUMNS}, s.id as submission, r.id as remark, p.name as student, y.text, y.sound is not null as spoken, y.made_at
     from replies y join remarks r on r.id = y.remark join submissions s on s.id = r.submission
     join assignments a on a.id = s.assignment join courses c on c.id = a.course
     join enrolments e on e.course = c.id and e.person = $1 and e.role = 'teacher' join people p on p.id = s.student
     where r.put_aside_at is null and ${UNANSWERED}
     order by y.made_at`,
    [teacher],
  );
  return rows.map((row) => ({
    submission: row.submission,
    remark: row.remark,
    student: row.student,
    text: row.text,
    spoken: row.spoken,
    at: row.made_at,
    assignment: summaryOfRow(row),
  }));
}

const CountsRow = SummaryRow.extend({ students: z.int(), handed_in: z.int(), returned: z.int() });

export async function selectTaught(db: Queries, teacher: string): Promise<Waiting['assignments']> {
  const rows = await select(
    db,
    CountsRow,
    `select ${SUMMARY_COLUMNS},
       (select count(*)::int from enrolments m where m.course = c.id and m.role = 'student') as students,
       (select count(distinct s.student)::int from submissions s where s.assignment = a.id and s.withdrawn_at is null) as handed_in,
       (select count(*)::int from submissions s where s.assignment = a.id and s.returned_at is not null and ${NEWEST}) as returned
     from assignments a join courses c on c.id = a.course
     join enrolments e on e.course = c.id and e.person = $1 and e.role = 'teacher'
     order by a.due_at nulls last, a.title`,
    [teacher],
  );
  return rows.map((row) => ({
    ...summaryOfRow(row),
    students: row.students,
    handedIn: row.handed_in,
    returned: row.returned,
  }));
}

const StateRow = z.object({ student: Id, name: z.string(), submission: Id }).extend(WorkFacts.shape);
const NotHandedInRow = z.object({ student: Id, name: z.string(), submission: z.null() });

interface StudentState {
  student: string;
  name: string;
  submission: string | null;
  state: WorkState | null;
}

/** How far each student of the class is, in the order of names. */
export async function selectStates(db: Queries, assignment: string): Promise<StudentState[]> {
  const rows = await select(
    db,
    z.union([StateRow, NotHandedInRow]),
    `select p.id as student, p.name, s.id as submission, s.version, s.handed_in_at, s.returned_at, ${WORK_FACTS}
     from assignments a join enrolments e on e.course = a.course and e.role = 'student' join people p on p.id = e.person
     left join submissions s on s.assignment = a.id and s.student = p.id and ${NEWEST}
     where a.id = $1 order by p.name, p.id`,
    [assignment],
  );
  return rows.map((row) => ({
    student: row.student,
    name: row.name,
    submission: row.submission,
    state: row.submission === null ? null : stateOfRow(row),
  }));
}

export async function updateBudget(db: Queries, assignment: string, budget: z.infer<typeof Budget>): Promise<void> {
  await db.query('update assignments set budget = $2 where id = $1', [assignment, budget]);
}

const BriefRow = SummaryRow.extend({ brief: z.string() });

const ClassQueryRow = z
  .object({ student: Id, name: z.string(), submission: Id, spoken: z.int(), heard: z.int(), unanswered: z.int() })
  .extend(WorkFacts.shape)
  .extend(GradeRow.shape);

export async function selectOverview(db: Queries, assignment: string): Promise<AssignmentOverview | undefined> {
  const brief = await selectOne(
    db,
    BriefRow.extend({ budget: Budget }),
    `select ${SUMMARY_COLUMNS}, a.brief, a.budget from assignments a join courses c on c.id = a.course where a.id = $1`,
    [assignment],
  );
  if (!brief) return undefined;
  const rows = await select(
    db,
    z.union([ClassQueryRow, NotHandedInRow]),
    `select p.id as student, p.name, s.id as submission, s.version, s.handed_in_at, s.returned_at, ${GRADE_COLUMNS}, ${WORK_FACTS},
       (select count(*)::int from remarks r where r.submission = s.id and r.put_aside_at is null and r.sound is not null
          and not r.private) as spoken,
       (select count(*)::int from listenings l join remarks r on r.id = l.remark
        where r.submission = s.id and r.put_aside_at is null and l.person = s.student and l.finished_at is not null) as heard,
       (select count(*)::int from replies y join remarks r on r.id = y.remark
        where r.submission = s.id and r.put_aside_at is null and ${UNANSWERED}) as unanswered
     from assignments a join enrolments e on e.course = a.course and e.role = 'student' join people p on p.id = e.person
     left join submissions s on s.assignment = a.id and s.student = p.id and ${NEWEST}
     where a.id = $1 order by p.name`,
    [assignment],
  );
  return {
    ...summaryOfRow(brief),
    brief: brief.brief,
    budget: brief.budget,
    rows: rows.map((row) => classRow(row, brief.due_at)),
  };
}

function classRow(row: z.infer<typeof ClassQueryRow> | z.infer<typeof NotHandedInRow>, dueAt: string | null): ClassRow {
  const student = { id: row.student, name: row.name };
  if (row.submission === null) return { student, submission: null };
  return {
    student,
    submission: {
      id: row.submission,
      version: row.version,
      handedInAt: row.handed_in_at,
      late: isLate(row.handed_in_at, dueAt),
      state: stateOfRow(row),
      returnedAt: row.returned_at,
      remarks: row.remarks,
      spoken: row.spoken,
      heard: row.heard,
      unanswered: row.unanswered,
      grade: gradeOfRow(row),
    },
  };
}

const OwnWorkRow = BriefRow.extend({
  submission: Id.nullable(),
  version: z.int().nullable(),
  files: z.array(z.string()),
  handed_in_at: Instant.nullable(),
  returned_at: Instant.nullable(),
  withdrawn_at: Instant.nullable(),
  can_withdraw: z.boolean().nullable(),
});

/** What a student has to do and has done, without a word about drafts of feedback. */
export async function selectOwnWork(db: Queries, student: string): Promise<OwnWork[]> {
  const rows = await select(
    db,
    OwnWorkRow,
    `select ${SUMMARY_COLUMNS}, a.brief, s.id as submission, s.version, s.handed_in_at, s.returned_at, s.withdrawn_at,
       s.opened_at is null as can_withdraw,
       coalesce((select jsonb_agg(f.name order by f.position) from submission_files f where f.submission = s.id), '[]') as files
     from assignments a join courses c on c.id = a.course
     join enrolments e on e.course = c.id and e.person = $1 and e.role = 'student'
     left join submissions s on s.assignment = a.id and s.student = $1
     order by a.due_at nulls last, a.title, a.id, s.version desc`,
    [student],
  );
  const works = new Map<string, OwnWork>();
  for (const row of rows) {
    const work = works.get(row.assignment) ?? {
      assignment: {
        ...summaryOfRow(row),
        brief: row.brief,
        questions: await selectQuestions(db, row.assignment),
      },
      versions: [],
    };
    works.set(row.assignment, work);
    if (row.submission && row.version && row.handed_in_at)
      work.versions.push({
        submission: row.submission,
        version: row.version,
        files: row.files,
        handedInAt: row.handed_in_at,
        returnedAt: row.returned_at,
        withdrawnAt: row.withdrawn_at,
        canWithdraw: row.can_withdraw === true,
      });
  }
  return [...works.values()];
}
