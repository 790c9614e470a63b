import type { Rubric, Scale, Scores } from '#core/grading';
import { isLate } from '#core/workflow';
import { z } from 'zod';
import { Hundredths, Id, Instant } from '../../contract/basics.ts';
import { Folio } from '../../contract/folio.ts';
import type { Feedback, Place, Work } from '../../contract/submissions.ts';
import { SUMMARY_COLUMNS, summaryOfRow } from '../assignments/queries.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { selectRemarks } from '../remarks/queries.ts';
import { GRADE_COLUMNS, GradeRow, gradeOfRow } from './grade-row.ts';

const WorkRow = z.object({
  id: Id,
  version: z.int(),
  newest: z.int(),
  student: Id,
  name: z.string(),
  file_name: z.string(),
  handed_in_at: Instant,
  folio: Folio,
  assignment: Id,
  title: z.string(),
  course: z.string(),
  due_at: Instant.nullable(),
});

export async function selectWork(db: Queries, submission: string): Promise<Work | undefined> {
  const row = await selectOne(
    db,
    WorkRow,
    `select s.id, s.version, s.student, p.name, s.file_name, s.handed_in_at, s.folio, ${SUMMARY_COLUMNS},
       (select max(n.version) from submissions n where n.assignment = s.assignment and n.student = s.student) as newest
     from submissions s join people p on p.id = s.student
     join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where s.id = $1`,
    [submission],
  );
  return (
    row && {
      id: row.id,
      version: row.version,
      newestVersion: row.newest,
      student: { id: row.student, name: row.name },
      fileName: row.file_name,
      handedInAt: row.handed_in_at,
      late: isLate(row.handed_in_at, row.due_at),
      assignment: summaryOfRow(row),
      folio: row.folio,
    }
  );
}

export async function selectText(db: Queries, submission: string): Promise<string | undefined> {
  const row = await selectOne(
    db,
    z.object({ text: z.string() }),
    `select folio->>'text' as text from submissions where id = $1`,
    [submission],
  );
  return row?.text;
}

/** The newest versions of the class in the order of names, and where this one stands. */
export async function selectPlace(db: Queries, submission: string): Promise<Place> {
  const rows = await select(
    db,
    z.object({ id: Id, here: z.boolean() }),
    `select s.id, s.student = o.student as here
     from submissions o join submissions s on s.assignment = o.assignment join people p on p.id = s.student
     where o.id = $1 and not exists (
       select from submissions n where n.assignment = s.assignment and n.student = s.student and n.version > s.version)
     order by p.name, s.id`,
    [submission],
  );
  const index = rows.findIndex((row) => row.here);
  return {
    position: index + 1,
    count: rows.length,
    previous: rows[index - 1]?.id ?? null,
    next: rows[index + 1]?.id ?? null,
  };
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
    remarks: await selectRemarks(db, { submission }),
    aside: reader === 'teacher' ? await selectRemarks(db, { submission, aside: true }) : [],
    rubric: await selectRubric(db, row.assignment),
    scale: await selectScale(db, row.assignment),
    scores: await selectScores(db, submission),
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

const PictureRow = z.object({ file: z.instanceof(Buffer) });

export async function selectPicture(db: Queries, submission: string, position: number): Promise<Buffer | undefined> {
  const row = await selectOne(
    db,
    PictureRow,
    'select file from submission_pictures where submission = $1 and position = $2',
    [submission, position],
  );
  return row?.file;
}
