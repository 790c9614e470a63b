import { isLate, workState, type WorkState } from '#core/workflow';
import { z } from 'zod';
import { AssignmentOverview, type ClassRow } from '../../contract/assignments.ts';
import { Id, Instant } from '../../contract/basics.ts';
import { Standing } from '../../contract/grading.ts';
import type { ClassStates } from '../../contract/submissions.ts';
import { SUMMARY_COLUMNS, selectQuestions } from '../assignments/queries.ts';
import { blindTo, countFor, NAMELESS, SHOWN_ID, SHOWN_NAME, shownAt, viewerIn } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { GRADE_JSON, GradeOrNone } from '../grading/queries.ts';
import { selectHandouts } from '../handouts/queries.ts';
import { dueOf, MARKING_JSON, RULE_COLUMNS, standingOf, withoutTime } from '../assignments/marking.ts';
import { NEWEST, unanswered, workFacts, WorkFacts } from '../submissions/state.ts';

const VIEWER = viewerIn('$2');

const Student = z.object({ student: Id, name: z.string() });
const NotHandedIn = Student.extend({ submission: z.null() });

const StateRow = Student.extend({ submission: Id }).extend(WorkFacts.shape);

interface StudentState {
  student: string;
  name: string;
  submission: string | null;
  state: WorkState | null;
}

/** The students of an assignment's course, each with their newest version. */
const CLASS = `assignments a join enrolments e on e.course = a.course and e.role in ('student', 'left')
  join people p on p.id = e.person
  left join submissions s on s.assignment = a.id and s.student = p.id and ${NEWEST}`;

/** How far each student of the class is, in the order of names. */
async function selectStates(db: Queries, assignment: string, person: string): Promise<StudentState[]> {
  const rows = await select(
    db,
    z.union([StateRow, NotHandedIn]),
    `select ${SHOWN_ID} as student, ${SHOWN_NAME} as name, s.id as submission, ${workFacts(VIEWER)}
     from ${CLASS} where a.id = $1 and (e.role = 'student' or s.id is not null) order by 2, 1`,
    [assignment, person],
  );
  return rows.map((row) => ({
    student: row.student,
    name: row.name,
    submission: row.submission,
    state: row.submission === null ? null : workState(row),
  }));
}

/** The class that a work belongs to. */
export async function selectClass(db: Queries, submission: string, person: string): Promise<ClassStates> {
  const row = await selectOne(db, z.object({ assignment: Id }), 'select assignment from submissions where id = $1', [
    submission,
  ]);
  return { students: row ? await selectStates(db, row.assignment, person) : [] };
}

const Head = AssignmentOverview.omit({ rows: true, questions: true, handouts: true });

const OverviewRow = StateRow.extend({
  nameless: z.boolean(),
  shown: Instant,
  spoken: z.int(),
  heard: z.int(),
  unanswered: z.int(),
  grade: GradeOrNone,
  standing: Standing,
  due: Instant.nullable(),
});

export async function selectOverview(
  db: Queries,
  assignment: string,
  person: string,
): Promise<AssignmentOverview | undefined> {
  const head = await selectOne(
    db,
    Head,
    `select ${SUMMARY_COLUMNS}, a.brief, a.budget, a.open, a.anonymous, ${MARKING_JSON} as marking, ${RULE_COLUMNS}, c.terms from assignments a join courses c on c.id = a.course where a.id = $1`,
    [assignment],
  );
  if (!head) return undefined;
  const rows = await select(
    db,
    z.union([OverviewRow, NotHandedIn.extend({ standing: Standing })]),
    `select ${SHOWN_ID} as student, ${SHOWN_NAME} as name, s.id as submission, ${shownAt('s.handed_in_at')} as shown,
       ${NAMELESS} as nameless,
       case when not ${blindTo(VIEWER)} then ${GRADE_JSON} end as grade, ${workFacts(VIEWER)},
       ${standingOf('p.id')} as standing, ${dueOf('p.id')} as due,
       ${countFor(
         VIEWER,
         `(select count(*)::int from remarks r where r.submission = s.id and r.put_aside_at is null and r.recording is not null
          and not r.private)`,
       )} as spoken,
       ${countFor(
         VIEWER,
         `(select count(*)::int from listenings l join remarks r on r.recording = l.recording
        where r.submission = s.id and r.put_aside_at is null and l.person = s.student and l.finished_at is not null)`,
       )} as heard,
       (select count(*)::int from replies y join remarks r on r.id = y.remark
        where r.submission = s.id and r.put_aside_at is null and ${unanswered(VIEWER)}) as unanswered
     from ${CLASS} where a.id = $1 and (e.role = 'student' or s.id is not null) order by 2, 1`,
    [assignment, person],
  );
  return {
    ...head,
    questions: await selectQuestions(db, assignment),
    handouts: await selectHandouts(db, assignment),
    rows: rows.map(({ student, name, standing, ...work }): ClassRow => {
      const row = { student: { id: student, name }, standing };
      if (work.submission === null) return { ...row, submission: null };
      const { submission: id, due, shown, nameless, ...rest } = work;
      const late = isLate(rest.handedInAt, due);
      return {
        ...{ ...row, standing: withoutTime(standing, nameless) },
        submission: { ...rest, handedInAt: shown, id, late, state: workState(rest) },
      };
    }),
  };
}
