import type { Rubric, Scale } from '#core/grading';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { Rubric as RubricSchema } from '../../contract/grading.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { RUBRIC_JSON } from './queries.ts';

/** How many works have been scored by the rubric of an assignment, or returned with a result of it. */
export const selectScored = async (db: Queries, assignment: string): Promise<number> =>
  (await selectOne(
    db,
    z.object({ scored: z.int() }),
    `select count(*)::int as scored from submissions s where s.assignment = $1
     and (s.points is not null or exists (select from scores x where x.submission = s.id))`,
    [assignment],
  ))!.scored;

/** Criteria that stay keep their identity, and what was said about them. Call in a transaction, where nobody has been scored. */
export async function replaceRubric(tx: Queries, assignment: string, rubric: Rubric, scale: Scale): Promise<void> {
  await tx.query(
    'delete from criteria where assignment = $1 and id not in (select value::uuid from jsonb_array_elements_text($2::jsonb))',
    [assignment, JSON.stringify(rubric.map(({ id }) => id))],
  );
  await tx.query('update criteria set position = -1 - position where assignment = $1', [assignment]);
  await tx.query('delete from levels where criterion in (select id from criteria where assignment = $1)', [assignment]);
  for (const [position, { id, title, description, levels, weight = null, bonus = false }] of rubric.entries()) {
    const kept = await tx.query(
      `insert into criteria (id, assignment, position, title, description, weight, bonus)
       values ($1, $2, $3, $4, $5, $6::int / 100.0, $7)
       on conflict (id) do update set position = excluded.position, title = excluded.title, description = excluded.description,
         weight = excluded.weight, bonus = excluded.bonus
         where criteria.assignment = excluded.assignment returning 1 as one`,
      [id, assignment, position, title, description, weight, bonus],
    );
    // One of another assignment stays what it is.
    if (kept.length === 0) continue;
    for (const [index, level] of levels.entries())
      await tx.query(
        `insert into levels (id, criterion, position, title, description, points) values ($1, $2, $3, $4, $5, $6::int / 100.0)
         on conflict (id) do nothing`,
        [level.id, id, index, level.title, level.description, level.points],
      );
  }
  await tx.query('delete from bands where assignment = $1', [assignment]);
  for (const { grade, from } of scale)
    await tx.query('insert into bands (assignment, grade, from_percentage) values ($1, $2, $3::int / 100.0)', [
      assignment,
      grade,
      from,
    ]);
}

const ShelfRow = z.object({ assignment: Id, title: z.string(), course: z.string(), rubric: RubricSchema });

/** Rubrics of all that a person teaches, the newest first. */
export const selectShelf = (db: Queries, teacher: string): Promise<z.infer<typeof ShelfRow>[]> =>
  select(
    db,
    ShelfRow,
    `select a.id as assignment, a.title, c.title as course, ${RUBRIC_JSON} as rubric
     from assignments a join courses c on c.id = a.course
     join enrolments e on e.course = c.id and e.person = $1 and e.role = 'teacher'
     where exists (select from criteria k where k.assignment = a.id) order by a.created_at desc, a.id limit 100`,
    [teacher],
  );
