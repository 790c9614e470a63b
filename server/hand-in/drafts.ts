import { z } from 'zod';
import { Answers } from '../../contract/assignments.ts';
import { Instant } from '../../contract/basics.ts';
import { Typed } from '../../contract/typed.ts';
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

export async function selectTypedDraft(db: Queries, assignment: string, student: string): Promise<Typed> {
  const row = await selectOne(
    db,
    Typed,
    'select html, changed_at as "changedAt" from typed_drafts where assignment = $1 and student = $2',
    [assignment, student],
  );
  return row ?? { html: '', changedAt: null };
}

interface TypedDraft {
  assignment: string;
  student: string;
  html: string;
  /** When what it takes the place of was kept; null where there was nothing. */
  over: string | null;
}

/** @returns when it was kept; nothing where something else was kept meanwhile, and this is not */
export async function keepTypedDraft(db: Queries, draft: TypedDraft): Promise<string | undefined> {
  const { assignment, student, html, over } = draft;
  const row = await selectOne(
    db,
    z.object({ changedAt: Instant }),
    `insert into typed_drafts as d (assignment, student, html, changed_at)
       values ($1, $2, $3, date_trunc('milliseconds', clock_timestamp()))
     on conflict (assignment, student) do update set html = excluded.html, changed_at = excluded.changed_at
       where d.changed_at = $4::timestamptz or d.html = excluded.html
     returning changed_at as "changedAt"`,
    [assignment, student, html, over],
  );
  return row?.changedAt;
}
