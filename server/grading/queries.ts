import { possiblePoints, type QuestionPoints, type Rubric, type Scale, type Score, type Scores } from '#core/grading';
import { z } from 'zod';
import { Hundredths, Id } from '../../contract/basics.ts';
import { Grade, Marking, Rubric as RubricSchema, Scores as ScoresSchema } from '../../contract/grading.ts';
import { MARKING_JSON } from '../assignments/marking.ts';
import { selectQuestions } from '../assignments/queries.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

/** The result of a work `s` as it was returned, null while there is none; numeric columns are read as whole hundredths. */
export const gradeJson = (
  s: string,
): string => `case when ${s}.points is not null then jsonb_strip_nulls(jsonb_build_object(
  'points', (${s}.points * 100)::int, 'possible', (${s}.possible * 100)::int, 'percentage', (${s}.percentage * 100)::int,
  'grade', ${s}.grade, 'explanation', ${s}.explanation)) end`;
export const GRADE_JSON = gradeJson('s');
export const GradeOrNone = Grade.nullable();

/** The rubric of an assignment `a`, in its newest version or in another. */
export const RUBRIC_JSON = (
  version = 'a.rubric_version',
): string => `(select coalesce(jsonb_agg(jsonb_build_object('id', k.id, 'title', k.title, 'description', k.description,
    'levels', (select jsonb_agg(jsonb_build_object('id', l.id, 'title', l.title, 'description', l.description,
        'points', (l.points * 100)::int) order by l.position)
      from levels l where l.criterion = k.id))
    || jsonb_strip_nulls(jsonb_build_object('weight', (k.weight * 100)::int, 'bonus', nullif(k.bonus, false))) order by k.position), '[]')
  from criteria k where k.assignment = a.id and k.version = ${version} and exists (select from levels l where l.criterion = k.id))`;

export const selectRubric = async (db: Queries, assignment: string): Promise<Rubric> => {
  const row = await selectOne(
    db,
    z.object({ rubric: RubricSchema }),
    `select ${RUBRIC_JSON()} as rubric from assignments a where a.id = $1`,
    [assignment],
  );
  return row?.rubric ?? [];
};

/** What a work is scored by. */
export const selectRubricOf = async (db: Queries, submission: string): Promise<Rubric> => {
  const row = await selectOne(
    db,
    z.object({ rubric: RubricSchema }),
    `select ${RUBRIC_JSON('coalesce(s.rubric_version, a.rubric_version)')} as rubric
     from submissions s join assignments a on a.id = s.assignment where s.id = $1`,
    [submission],
  );
  return row?.rubric ?? [];
};

/** What a work is out of; null where nothing gives points. */
export async function selectPossible(db: Queries, submission: string): Promise<number | null> {
  const { assignment, marking } = (await selectOne(
    db,
    z.object({ assignment: Id, marking: Marking }),
    `select a.id as assignment, ${MARKING_JSON} as marking from submissions s join assignments a on a.id = s.assignment
     where s.id = $1`,
    [submission],
  ))!;
  const rubric = await selectRubricOf(db, submission);
  return possiblePoints({ rubric, questions: await selectQuestions(db, assignment), marking });
}

export const selectScale = (db: Queries, assignment: string): Promise<Scale> =>
  select(
    db,
    z.object({ grade: z.string(), from: Hundredths }),
    'select grade, (from_percentage * 100)::int as "from" from bands where assignment = $1 order by from_percentage desc',
    [assignment],
  );

/** The scores of a work `s`. */
export const SCORES_JSON = `(select coalesce(jsonb_object_agg(k.criterion, case
    when k.level is not null then jsonb_build_object('level', k.level)
    when k.points is not null then jsonb_build_object('points', (k.points * 100)::int)
    else '{"notAssessed": true}' end), '{}')
  from scores k where k.submission = s.id)`;

export const selectScores = async (db: Queries, submission: string): Promise<Scores> =>
  (await selectOne(
    db,
    z.object({ scores: ScoresSchema }),
    `select ${SCORES_JSON} as scores from submissions s where s.id = $1`,
    [submission],
  ))!.scores;

/** @returns false where the criterion is not one of this work's assignment, or does not give this score */
export async function upsertScore(
  db: Queries,
  given: { submission: string; criterion: string; score: Score; person: string },
): Promise<boolean> {
  const { submission, criterion, score, person } = given;
  const level = 'level' in score ? score.level : null;
  const points = 'points' in score ? score.points : null;
  const rows = await db.query(
    `insert into scores (submission, criterion, level, points, not_assessed, chosen_by)
     select s.id, k.id, $3, $4::int / 100.0, $5, $6 from submissions s join assignments a on a.id = s.assignment
     join criteria k on k.assignment = s.assignment and k.id = $2 and k.version = coalesce(s.rubric_version, a.rubric_version)
     where s.id = $1 and s.returned_at is null
       and ($3::uuid is null or exists (select from levels l where l.criterion = k.id and l.id = $3))
       and ($4::int is null or $4::int / 100.0 <= (select max(l.points) from levels l where l.criterion = k.id))
     on conflict (submission, criterion) do update set level = excluded.level, points = excluded.points,
       not_assessed = excluded.not_assessed, chosen_by = excluded.chosen_by, chosen_at = now()
     returning 1 as one`,
    [submission, criterion, level, points, level === null && points === null, person],
  );
  return rows.length > 0;
}

export async function deleteScore(db: Queries, submission: string, criterion: string): Promise<void> {
  await db.query('delete from scores where submission = $1 and criterion = $2', [submission, criterion]);
}

export async function selectPoints(db: Queries, submission: string): Promise<QuestionPoints> {
  const rows = await select(
    db,
    z.object({ question: Id, points: Hundredths }),
    'select question, (points * 100)::int as points from question_points where submission = $1',
    [submission],
  );
  return Object.fromEntries(rows.map(({ question, points }) => [question, points]));
}

/** @returns false where the question is not one of this work's assignment, or gives fewer points */
export async function upsertPoints(
  db: Queries,
  given: { submission: string; question: string; points: number; person: string },
): Promise<boolean> {
  const rows = await db.query(
    `insert into question_points (submission, question, points, given_by)
     select s.id, q.id, $3::int / 100.0, $4 from submissions s join questions q on q.assignment = s.assignment and q.id = $2
     where s.id = $1 and s.returned_at is null and q.points >= $3::int / 100.0
     on conflict (submission, question) do update set points = excluded.points, given_by = excluded.given_by, given_at = now()
     returning 1 as one`,
    [given.submission, given.question, given.points, given.person],
  );
  return rows.length > 0;
}

export async function deletePoints(db: Queries, submission: string, question: string): Promise<void> {
  await db.query('delete from question_points where submission = $1 and question = $2', [submission, question]);
}
