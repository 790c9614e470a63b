import { outcomeOf, type Rubric } from '#core/grading';
import { findingsIn, type Draft } from '#core/returning';
import { minutesLate, workState } from '#core/workflow';
import { z } from 'zod';
import { Hundredths, Id, Instant } from '../../contract/basics.ts';
import { Adjustment, Marking, Rubric as RubricSchema, Scores, Standing } from '../../contract/grading.ts';
import { Held } from '../../contract/submissions.ts';
import type { ReturnRow } from '../../contract/returning.ts';
import { selectQuestions } from '../assignments/queries.ts';
import { blindTo, NAMELESS, SHOWN_NAME, viewerIn } from '../access/visible.ts';
import { select, type Queries } from '../db/database.ts';
import { GRADE_JSON, GradeOrNone, RUBRIC_JSON, SCORES_JSON, selectScale } from '../grading/queries.ts';
import { dueOf, MARKING_JSON, standingOf } from '../assignments/marking.ts';
import { NEWEST, workFacts, WorkFacts } from '../submissions/state.ts';

const DraftRemark = z.object({
  id: Id,
  whole: z.boolean(),
  spoken: z.boolean(),
  text: z.string(),
  unread: z.boolean(),
});

const Row = WorkFacts.omit({ remarks: true }).extend({
  submission: Id,
  student: z.string(),
  nameless: z.boolean(),
  returnAt: Instant.nullable(),
  held: Held.nullable(),
  returned: GradeOrNone,
  due: Instant.nullable(),
  marking: Marking,
  standing: Standing,
  scored: Scores,
  rubric: z.int(),
  points: z.record(Id, Hundredths),
  adjustment: Adjustment.nullable(),
  remarks: z.array(DraftRemark),
});

/** The newest works of an assignment with what there is to say before they go out, in the order of names. */
export async function selectReturning(db: Queries, assignment: string, person: string): Promise<ReturnRow[]> {
  const sheet = {
    scale: await selectScale(db, assignment),
    questions: await selectQuestions(db, assignment),
  };
  const rows = await select(
    db,
    Row,
    `select s.id as submission, ${SHOWN_NAME} as student, ${NAMELESS} as nameless, ${workFacts(viewerIn('$2'))}, s.return_at as "returnAt", s.held, ${GRADE_JSON} as returned,
       ${dueOf('s.student')} as due, ${MARKING_JSON} as marking, ${standingOf('s.student')} as standing,
       ${SCORES_JSON} as scored, coalesce(s.rubric_version, a.rubric_version) as rubric,
       (select coalesce(jsonb_object_agg(question, (points * 100)::int), '{}') from question_points k where k.submission = s.id) as points,
       (select jsonb_build_object('extra', (x.extra * 100)::int, 'total', (x.total * 100)::int, 'reason', x.reason)
        from adjustments x where x.submission = s.id) as adjustment,
       (select coalesce(jsonb_agg(jsonb_build_object('id', r.id, 'whole', r.anchor ->> 'type' = 'whole' and r.criterion is null,
            'spoken', r.recording is not null,
            'text', coalesce(t.text, '') || coalesce(r.content ->> 'text', ''),
            'unread', t.text is not null and not t.read) order by r.made_at), '[]')
        from remarks r left join transcripts t on t.recording = r.recording
        where r.submission = s.id and r.put_aside_at is null and not r.private and r.author <> s.student) as remarks
     from submissions s join assignments a on a.id = s.assignment join people p on p.id = s.student
     where s.assignment = $1 and ${NEWEST} and not ${blindTo(viewerIn('$2'))} order by 2, p.id`,
    [assignment, person],
  );
  const rubrics = await selectRubrics(db, assignment);
  const titles = new Map([
    ...[...rubrics.values()].flat().map(({ id, title }) => [id, title] as const),
    ...sheet.questions.map(({ id }, index) => [id, `Question ${index + 1}`] as const),
  ]);
  const looked = rows.map((row) => {
    const { scored: scores, points, marking, adjustment, standing } = row;
    const late = minutesLate(row.handedInAt, row.due);
    const rubric = rubrics.get(row.rubric) ?? [];
    const outcome = outcomeOf({
      ...sheet,
      rubric,
      scores,
      points,
      marking,
      adjustment,
      standing,
      minutesLate: late,
    });
    const unscored = outcome.grade ? [] : outcome.missing.map((id) => titles.get(id)!);
    return { row, outcome, draft: draftOf(row, unscored, rubric.length + sheet.questions.length) };
  });
  const findings = findingsIn(looked.map(({ draft }) => draft));
  return looked.map(({ row, outcome }, index) => ({
    ...{ submission: row.submission, student: row.student, remarks: row.remarks.length },
    state: workState({ ...row, remarks: row.remarks.length }),
    ...{ returnedAt: row.returnedAt, returnAt: row.returnAt, held: row.held },
    grade: row.returnedAt === null ? outcome.grade : row.returned,
    findings: row.returnedAt === null ? findings[index]! : [],
  }));
}

/** By their versions. */
async function selectRubrics(db: Queries, assignment: string): Promise<Map<number, Rubric>> {
  const rows = await select(
    db,
    z.object({ version: z.int(), rubric: RubricSchema }),
    `select v.version, ${RUBRIC_JSON('v.version')} as rubric
     from assignments a, lateral generate_series(1, a.rubric_version) as v (version) where a.id = $1`,
    [assignment],
  );
  return new Map(rows.map(({ version, rubric }) => [version, rubric]));
}

const draftOf = ({ student, nameless, remarks }: z.infer<typeof Row>, unscored: string[], parts: number): Draft => ({
  // Whether a name is that of the student is said of nobody who is not named.
  student: nameless ? '' : student,
  remarks,
  unscored,
  parts,
});

/** Those of these works that are of this assignment and can still be seen, in a fixed order. */
export async function selectOf(db: Queries, assignment: string, works: readonly string[]): Promise<string[]> {
  const rows = await select(
    db,
    z.object({ id: Id }),
    `select id from submissions where assignment = $1 and withdrawn_at is null
       and id in (select value::uuid from jsonb_array_elements_text($2::jsonb)) order by id`,
    [assignment, JSON.stringify(works)],
  );
  return rows.map(({ id }) => id);
}

/** @returns those that will go out, or will not any more */
export async function updateReturnAt(db: Queries, works: readonly string[], at: string | null): Promise<string[]> {
  const rows = await select(
    db,
    z.object({ id: Id }),
    `update submissions set return_at = $2, ready_at = coalesce(ready_at, now()) where returned_at is null
       and id in (select value::uuid from jsonb_array_elements_text($1::jsonb)) returning id`,
    [JSON.stringify(works), at],
  );
  return rows.map(({ id }) => id);
}

/** What has been planned cannot be unready. @returns false where it is returned */
export async function updateReady(db: Queries, submission: string, ready: boolean): Promise<boolean> {
  const rows = await db.query(
    `update submissions set ready_at = case when $2 then coalesce(ready_at, now()) end,
       return_at = case when $2 then return_at end, opened_at = coalesce(opened_at, now())
     where id = $1 and returned_at is null returning 1 as one`,
    [submission, ready],
  );
  return rows.length > 0;
}

/** Works whose time has come, a few at a time. */
export async function selectDue(db: Queries): Promise<string[]> {
  const rows = await select(
    db,
    z.object({ id: Id }),
    'select id from submissions where return_at <= now() and returned_at is null and withdrawn_at is null order by return_at, id limit 100',
  );
  return rows.map(({ id }) => id);
}
