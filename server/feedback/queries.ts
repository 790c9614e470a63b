import { z } from 'zod';
import { Id, Instant } from '../../contract/basics.ts';
import type { Feedback } from '../../contract/submissions.ts';
import type { Reader } from '../access/visible.ts';
import { selectQuestions } from '../assignments/queries.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { GRADE_JSON, GradeOrNone, selectPoints, selectRubric, selectScale, selectScores } from '../grading/queries.ts';
import { selectRemarks } from '../remarks/queries.ts';

const ReturnRow = z.object({ assignment: Id, returnedAt: Instant.nullable(), grade: GradeOrNone });

/** All that was said about a work. */
export async function selectFeedback(db: Queries, submission: string, reader: Reader): Promise<Feedback | undefined> {
  const row = await selectOne(
    db,
    ReturnRow,
    `select s.assignment, s.returned_at as "returnedAt", case when s.returned_at is not null then ${GRADE_JSON} end as grade
     from submissions s where s.id = $1`,
    [submission],
  );
  if (!row) return undefined;
  const { assignment, returnedAt, grade } = row;
  return {
    ...{ returnedAt, grade },
    remarks: await selectRemarks(db, { submission }, reader),
    aside: reader.teacher ? await selectRemarks(db, { submission, aside: true }, reader) : [],
    rubric: await selectRubric(db, assignment),
    scale: await selectScale(db, assignment),
    scores: await selectScores(db, submission),
    questions: await selectQuestions(db, assignment),
    points: await selectPoints(db, submission),
  };
}
