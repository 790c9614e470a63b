import { z } from 'zod';
import { AssignmentSummary, Question, type Budget } from '../../contract/assignments.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

/** What an assignment `a` of a course `c` is called, and when it is due. */
export const SUMMARY_JSON = `jsonb_build_object('id', a.id, 'title', a.title, 'course', c.title, 'courseId', c.id, 'dueAt', a.due_at)`;

/** The same as columns. */
export const SUMMARY_COLUMNS = 'a.id, a.title, c.title as course, c.id as "courseId", a.due_at as "dueAt"';

export const selectQuestions = (db: Queries, assignment: string): Promise<Question[]> =>
  select(
    db,
    Question,
    'select id, kind, prompt, choices, (points * 100)::int as points from questions where assignment = $1 order by position',
    [assignment],
  );

export async function selectTitle(db: Queries, assignment: string): Promise<string> {
  const title = AssignmentSummary.pick({ title: true });
  return (await selectOne(db, title, 'select title from assignments where id = $1', [assignment]))!.title;
}

export async function updateBudget(db: Queries, assignment: string, budget: z.infer<typeof Budget>): Promise<void> {
  await db.query('update assignments set budget = $2 where id = $1', [assignment, budget]);
}
