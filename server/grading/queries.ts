import type { QuestionPoints, Rubric, Scale, Scores } from '#core/grading';
import { z } from 'zod';
import { Hundredths, Id } from '../../contract/basics.ts';
import { Grade, Rubric as RubricSchema } from '../../contract/grading.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

/** The result of a work `s` as it was returned, null while there is none; numeric columns are read as whole hundredths. */
export const GRADE_JSON = `case when s.points is not null then jsonb_strip_nulls(jsonb_build_object(
  'points', (s.points * 100)::int, 'possible', (s.possible * 100)::int, 'percentage', (s.percentage * 100)::int,
  'grade', s.grade)) end`;
export const GradeOrNone = Grade.nullable();

/** The rubric of an assignment `a`. */
export const RUBRIC_JSON = `(select coalesce(jsonb_agg(jsonb_build_object('id', k.id, 'title', k.title, 'description', k.description,
    'levels', (select jsonb_agg(jsonb_build_object('id', l.id, 'title', l.title, 'description', l.description,
        'points', (l.points * 100)::int) order by l.position)
      from levels l where l.criterion = k.id)) order by k.position), '[]')
  from criteria k where k.assignment = a.id and exists (select from levels l where l.criterion = k.id))`;

export const selectRubric = async (db: Queries, assignment: string): Promise<Rubric> => {
  const row = await selectOne(
    db,
    z.object({ rubric: RubricSchema }),
    `select ${RUBRIC_JSON} as rubric from assignments a where a.id = $1`,
    [assignment],
  );
  return row?.rubric ?? [];
};

export const selectScale = (db: Queries, assignment: string): Promise<Scale> =>
  select(
    db,
    z.object({ grade: z.string(), from: Hundredths }),
    'select grade, (from_percentage * 100)::int as "from" from bands where assignment = $1 order by from_percentage desc',
    [assignment],
  );

export async function selectScores(db: Queries, submission: string): Promise<Scores> {
  const rows = await select(
    db,
    z.object({ criterion: Id, level: Id }),
    'select criterion, level from scores where submission = $1',
    [submission],
  );
  return Object.fromEntries(rows.map(({ criterion, level }) => [criterion, level]));
}

/** @returns false where the level is not one of this criterion, or the criterion not one of this work's assignment */
export async function upsertScore(
  db: Queries,
  score: { submission: string; criterion: string; level: string; person: string },
): Promise<boolean> {
  const rows = await db.query(
    `insert into scores (submission, criterion, level, chosen_by)
     select s.id, k.id, l.id, $4 from submissions s
     join criteria k on k.assignment = s.assignment and k.id = $2 join levels l on l.criterion = k.id and l.id = $3
     where s.id = $1 and s.returned_at is null
     on conflict (submission, criterion) do update set level = excluded.level, chosen_by = excluded.chosen_by, chosen_at = now()
     returning 1 as one`,
    [score.submission, score.criterion, score.level, score.person],
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
