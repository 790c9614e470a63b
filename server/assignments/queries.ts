import { randomUUID } from 'node:crypto';
import { AssignmentSettings, type AssignmentChange, AssignmentSummary, Question } from '../../contract/assignments.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { MARKING_JSON, RULE_COLUMNS, updateMarking, updateRules } from './marking.ts';

const MODERATION = '(select d.id from moderations d where d.second_assignment = a.id)';

/** What an assignment `a` of a course `c` is called, and when it is due. */
export const SUMMARY_JSON = `jsonb_build_object('id', a.id, 'title', a.title, 'course', c.title, 'courseId', c.id, 'dueAt', a.due_at,
  'moderation', ${MODERATION})`;

/** The same as columns. */
export const SUMMARY_COLUMNS = `a.id, a.title, c.title as course, c.id as "courseId", a.due_at as "dueAt", ${MODERATION} as moderation`;

export const selectQuestions = (db: Queries, assignment: string): Promise<Question[]> =>
  select(
    db,
    Question,
    'select id, kind, prompt, choices, (points * 100)::int as points from questions where assignment = $1 order by position',
    [assignment],
  );

export const selectSummary = async (db: Queries, assignment: string): Promise<AssignmentSummary> =>
  (await selectOne(
    db,
    AssignmentSummary,
    `select ${SUMMARY_COLUMNS} from assignments a join courses c on c.id = a.course where a.id = $1`,
    [assignment],
  ))!;

/** A new one is seen by its teachers alone until they open it. */
export async function insertAssignment(db: Queries, course: string, title: string): Promise<string> {
  const id = randomUUID();
  await db.query("insert into assignments (id, course, title, brief, open) values ($1, $2, $3, '', false)", [
    id,
    course,
    title,
  ]);
  return id;
}

const settingsOf = async (db: Queries, assignment: string): Promise<AssignmentSettings> =>
  (await selectOne(
    db,
    AssignmentSettings,
    `select a.title, a.brief, a.due_at as "dueAt", a.budget, a.open, a.anonymous, ${MARKING_JSON} as marking, ${RULE_COLUMNS} from assignments a where a.id = $1`,
    [assignment],
  ))!;

/** Call in a transaction. */
export async function updateAssignment(
  tx: Queries,
  assignment: string,
  change: AssignmentChange,
): Promise<AssignmentSettings> {
  await tx.query('select from assignments where id = $1 for update', [assignment]);
  const before = await settingsOf(tx, assignment);
  const { title, brief, dueAt, budget, open, anonymous, marking, ...rules } = AssignmentSettings.parse({
    ...before,
    ...change,
  });
  await updateMarking(tx, assignment, marking);
  await updateRules(tx, assignment, rules);
  await tx.query(
    'update assignments set title = $2, brief = $3, due_at = $4, budget = $5, open = $6, anonymous = $7 where id = $1',
    [...[assignment, title, brief, dueAt, budget, open, anonymous]],
  );
  return settingsOf(tx, assignment);
}

/** Whether somebody has handed in answers, or a teacher has said something about one of the questions. */
export async function isAnswered(db: Queries, assignment: string): Promise<boolean> {
  const rows = await db.query('select 1 as one from submissions where assignment = $1 limit 1', [assignment]);
  return rows.length > 0;
}

/** Those that stay keep their id, and what was said about them. Call in a transaction. */
export async function replaceQuestions(tx: Queries, assignment: string, questions: readonly Question[]): Promise<void> {
  await tx.query(
    'delete from questions where assignment = $1 and id not in (select value::uuid from jsonb_array_elements_text($2::jsonb))',
    [assignment, JSON.stringify(questions.map(({ id }) => id))],
  );
  await tx.query('update questions set position = -1 - position where assignment = $1', [assignment]);
  for (const [position, { id, kind, prompt, choices, points }] of questions.entries())
    await tx.query(
      `insert into questions (id, assignment, position, kind, prompt, choices, points) values ($1, $2, $3, $4, $5, $6, $7::int / 100.0)
       on conflict (id) do update set position = excluded.position, kind = excluded.kind, prompt = excluded.prompt,
         choices = excluded.choices, points = excluded.points where questions.assignment = excluded.assignment`,
      [id, assignment, position, kind, prompt, JSON.stringify(choices), points],
    );
}
