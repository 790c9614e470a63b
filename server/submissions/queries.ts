import type { QuestionPoints, Rubric, Scale, Scores } from '#core/grading';
import { isLate } from '#core/workflow';
import { z } from 'zod';
import { Hundredths, Id, Instant } from '../../contract/basics.ts';
import { Folio } from '../../contract/folio.ts';
import { Budget } from '../../contract/assignments.ts';
import type { ClassStates, Feedback, Work } from '../../contract/submissions.ts';
import { selectQuestions } from '../answers/queries.ts';
import { selectStates, SUMMARY_COLUMNS, summaryOfRow } from '../assignments/queries.ts';
import { selectMarginKey } from '../courses/queries.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { selectRemarks } from '../remarks/queries.ts';
import { GRADE_COLUMNS, GradeRow, gradeOfRow } from './grade-row.ts';

const WorkRow = z.object({
  id: Id,
  version: z.int(),
  student: Id,
  name: z.string(),
  handed_in_at: Instant,
  folio: Folio,
  assignment: Id,
  title: z.string(),
  course: z.string(),
  due_at: Instant.nullable(),
  course_id: Id,
  budget: Budget,
});

export async function selectWork(db: Queries, submission: string): Promise<Work | undefined> {
  const row = await selectOne(
    db,
    WorkRow,
    `select s.id, s.version, s.student, p.name, s.handed_in_at, s.folio, c.id as course_id, a.budget, ${SUMMARY_COLUMNS}
     from submissions s join people p on p.id = s.student
     join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where s.id = $1`,
    [submission],
  );
  return (
    row && {
      id: row.id,
      version: row.version,
      versions: await selectVersions(db, row.assignment, row.student),
      student: { id: row.student, name: row.name },
      files: await selectFiles(db, submission),
      handedInAt: row.handed_in_at,
      late: isLate(row.handed_in_at, row.due_at),
      assignment: summaryOfRow(row),
      course: row.course_id,
      marginKey: await selectMarginKey(db, submission),
      budget: row.budget,
      folio: row.folio,
    }
  );
}

const VersionRow = z.object({ id: Id, version: z.int(), handed_in_at: Instant, returned_at: Instant.nullable() });

async function selectVersions(db: Queries, assignment: string, student: string): Promise<Work['versions']> {
  const rows = await select(
    db,
    VersionRow,
    `select id, version, handed_in_at, returned_at from submissions
     where assignment = $1 and student = $2 and withdrawn_at is null order by version desc`,
    [assignment, student],
  );
  return rows.map(({ id, version, handed_in_at, returned_at }) => ({
    id,
    version,
    handedInAt: handed_in_at,
    returnedAt: returned_at,
  }));
}

async function selectFiles(db: Queries, submission: string): Promise<Work['files']> {
  const rows = await select(
    db,
    z.object({ name: z.string(), media_type: z.string() }),
    `select f.name, m.media_type from submission_files f join media m on m.sha256 = f.file
     where f.submission = $1 order by f.position`,
    [submission],
  );
  return rows.map(({ name, media_type }) => ({ name, mediaType: media_type }));
}

export async function selectFolio(db: Queries, submission: string): Promise<z.infer<typeof Folio> | undefined> {
  const row = await selectOne(db, z.object({ folio: Folio }), 'select folio from submissions where id = $1', [
    submission,
  ]);
  return row?.folio;
}

/** Its student cannot withdraw it any more. */
export async function markOpened(db: Queries, submission: string): Promise<void> {
  await db.query('update submissions set opened_at = now() where id = $1 and opened_at is null', [submission]);
}

/** @returns false where a teacher has opened it in the meantime */
export async function updateWithdrawn(db: Queries, submission: string, withdrawn: boolean): Promise<boolean> {
  const rows = await db.query(
    `update submissions set withdrawn_at = case when $2 then coalesce(withdrawn_at, now()) end
     where id = $1 and opened_at is null returning 1 as one`,
    [submission, withdrawn],
  );
  return rows.length > 0;
}

/** What was withdrawn can be brought back for 30 days; then it goes. */
export async function purgeWithdrawn(db: Queries): Promise<void> {
  await db.query("delete from submissions where withdrawn_at < now() - interval '30 days'");
}

/** The class that a work belongs to. */
export async function selectClass(db: Queries, submission: string): Promise<ClassStates> {
  const row = await selectOne(db, z.object({ assignment: Id }), 'select assignment from submissions where id = $1', [
    submission,
  ]);
  return { students: row ? await selectStates(db, row.assignment) : [] };
}

const ReturnRow = GradeRow.extend({ assignment: Id, returned_at: Instant.nullable() });

export async function selectFeedback(
  db: Queries,
  submission: string,
  reader: 'teacher' | 'student',
): Promise<Feedback | undefined> {
  const row = await selectOne(
    db,
    ReturnRow,
    `select s.assignment, s.returned_at, ${GRADE_COLUMNS} from submissions s where s.id = $1`,
    [submission],
  );
  if (!row) return undefined;
  return {
    returnedAt: row.returned_at,
    remarks: await selectRemarks(db, { submission }, reader),
    aside: reader === 'teacher' ? await selectRemarks(db, { submission, aside: true }) : [],
    rubric: await selectRubric(db, row.assignment),
    scale: await selectScale(db, row.assignment),
    scores: await selectScores(db, submission),
    questions: await selectQuestions(db, row.assignment),
    points: await selectPoints(db, submission),
    grade: row.returned_at === null ? null : gradeOfRow(row),
  };
}

const LevelRow = z.object({
  criterion: Id,
  criterion_title: z.string(),
  criterion_description: z.string(),
  level: Id,
  title: z.string(),
  description: z.string(),
  points: Hundredths,
});

async function selectRubric(db: Queries, assignment: string): Promise<Rubric> {
  const rows = await select(
    db,
    LevelRow,
    `select k.id as criterion, k.title as criterion_title, k.description as criterion_description,
       l.id as level, l.title, l.description, (l.points * 100)::int as points
     from criteria k join levels l on l.criterion = k.id
     where k.assignment = $1 order by k.position, l.position`,
    [assignment],
  );
  const rubric = new Map<string, Rubric[number]>();
  for (const row of rows) {
    const criterion = rubric.get(row.criterion) ?? {
      id: row.criterion,
      title: row.criterion_title,
      description: row.criterion_description,
      levels: [],
    };
    rubric.set(row.criterion, criterion);
    criterion.levels.push({ id: row.level, title: row.title, description: row.description, points: row.points });
  }
  return [...rubric.values()];
}

const selectScale = (db: Queries, assignment: string): Promise<Scale> =>
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

const FileRow = z.object({ file: z.instanceof(Buffer) });

/** The SHA-256 of a file that was handed in, or of a picture that was found in one. */
export async function selectFile(
  db: Queries,
  table: 'submission_files' | 'submission_pictures',
  submission: string,
  position: number,
): Promise<Buffer | undefined> {
  const row = await selectOne(db, FileRow, `select file from ${table} where submission = $1 and position = $2`, [
    submission,
    position,
  ]);
  return row?.file;
}

/** The SHA-256 of each of them, in order. */
export async function selectHashes(
  db: Queries,
  table: 'submission_files' | 'submission_pictures',
  submission: string,
): Promise<string[]> {
  const rows = await select(db, FileRow, `select file from ${table} where submission = $1 order by position`, [
    submission,
  ]);
  return rows.map(({ file }) => file.toString('hex'));
}
