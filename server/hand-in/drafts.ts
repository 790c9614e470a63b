import { z } from 'zod';
import { Answers } from '../../contract/assignments.ts';
import { selectOne, type Queries } from '../db/database.ts';

export async function selectDraft(db: Queries, assignment: string, student: string): Promise<Answers> {
  const row = await selectOne(
    db,
    z.object({ answers: Answers }),
    'select answers from answer_drafts where assignment = $1 and student = $2',
    [assignment, student],
  );
  return row?.answers ?? {};
}

export async function upsertDraft(db: Queries, assignment: string, student: string, answers: Answers): Promise<void> {
  await db.query(
    `insert into answer_drafts (assignment, student, answers) values ($1, $2, $3)
     on conflict (assignment, student) do update set answers = excluded.answers, changed_at = now()`,
    [assignment, student, JSON.stringify(answers)],
  );
}
