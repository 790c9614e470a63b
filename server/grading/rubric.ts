import type { Rubric, Scale } from '#core/grading';
import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Id, Instant } from '../../contract/basics.ts';
import { Rubric as RubricSchema } from '../../contract/grading.ts';
import type { ScoredWork } from '../../contract/rubrics.ts';
import { blindTo, SHOWN_NAME, viewerIn } from '../access/visible.ts';
import { select, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { RUBRIC_JSON, selectRubric } from './queries.ts';

/**
 * Works that have been scored by the newest version of the rubric of an assignment, or returned with a result of it.
 * @param person who sees them; null for all
 */
export const selectScored = (db: Queries, assignment: string, person: string | null = null): Promise<ScoredWork[]> =>
  select(
    db,
    z.object({ submission: Id, student: z.string(), returnedAt: Instant.nullable() }),
    `select s.id as submission, ${SHOWN_NAME} as student, s.returned_at as "returnedAt"
     from submissions s join assignments a on a.id = s.assignment join people p on p.id = s.student
     where s.assignment = $1 and s.rubric_version is null
       and (s.points is not null or exists (select from scores x where x.submission = s.id))
       and not ${blindTo(viewerIn('$2'))} order by 2, s.version, s.id`,
    [assignment, person],
  );

/** Criteria that stay keep their identity, and what was said about them. Call in a transaction, where nobody has been scored. */
export async function replaceRubric(tx: Queries, assignment: string, rubric: Rubric): Promise<void> {
  const newest = `assignment = $1 and version = (select rubric_version from assignments where id = $1)`;
  await tx.query(
    `delete from criteria where ${newest} and id not in (select value::uuid from jsonb_array_elements_text($2::jsonb))`,
    [assignment, JSON.stringify(rubric.map(({ id }) => id))],
  );
  await tx.query(`update criteria set position = -1 - position where ${newest}`, [assignment]);
  await tx.query(`delete from levels where criterion in (select id from criteria where ${newest})`, [assignment]);
  await insertRubric(tx, assignment, rubric);
}

async function insertRubric(tx: Queries, assignment: string, rubric: Rubric): Promise<void> {
  for (const [position, criterion] of rubric.entries()) {
    const { id, title, description, levels, weight = null, bonus = false } = criterion;
    const kept = await tx.query(
      `insert into criteria (id, assignment, version, position, title, description, weight, bonus)
       select $1, a.id, a.rubric_version, $3, $4, $5, $6::int / 100.0, $7 from assignments a where a.id = $2
       on conflict (id) do update set position = excluded.position, title = excluded.title, description = excluded.description,
         weight = excluded.weight, bonus = excluded.bonus
         where criteria.assignment = excluded.assignment and criteria.version = excluded.version returning 1 as one`,
      [id, assignment, position, title, description, weight, bonus],
    );
    // One of another assignment stays what it is, and so does all of this one.
    if (kept.length === 0) throw problems.rubricElsewhere(title);
    for (const [index, level] of levels.entries()) {
      const added = await tx.query(
        `insert into levels (id, criterion, position, title, description, points) values ($1, $2, $3, $4, $5, $6::int / 100.0)
         on conflict (id) do nothing returning 1 as one`,
        [level.id, id, index, level.title, level.description, level.points],
      );
      if (added.length === 0) throw problems.rubricElsewhere(level.title);
    }
  }
}

/**
 * Makes a new version beside the one that works have been scored by. These stay with theirs, except those that are to move: their
 * scores go along where criterion and level are called the same, and the others are to be scored again. Call in a transaction.
 */
export async function addVersion(
  tx: Queries,
  assignment: string,
  rubric: Rubric,
  moving: readonly string[],
): Promise<void> {
  const before = await selectRubric(tx, assignment);
  const now = rubric.map((criterion) => ({
    ...criterion,
    id: randomUUID(),
    levels: criterion.levels.map((level) => ({ ...level, id: randomUUID() })),
  }));
  const scored = await selectScored(tx, assignment);
  const moved = scored.filter(({ submission, returnedAt }) => returnedAt === null && moving.includes(submission));
  const staying = scored.filter((work) => !moved.includes(work));
  await tx.query(
    `update submissions set rubric_version = (select rubric_version from assignments where id = $1)
     where assignment = $1 and id in (select value::uuid from jsonb_array_elements_text($2::jsonb))`,
    [assignment, JSON.stringify(staying.map(({ submission }) => submission))],
  );
  await tx.query('update assignments set rubric_version = rubric_version + 1 where id = $1', [assignment]);
  await insertRubric(tx, assignment, now);
  for (const { submission } of moved) await moveScores(tx, submission, before, now);
}

async function moveScores(tx: Queries, submission: string, before: Rubric, now: Rubric): Promise<void> {
  for (const old of before) {
    const next = now.find(({ title }) => title === old.title);
    await tx.query('update remarks set criterion = $3 where submission = $1 and criterion = $2', [
      ...[submission, old.id, next?.id ?? null],
    ]);
    if (next) {
      await tx.query(
        `insert into scores (submission, criterion, level, points, not_assessed, chosen_by, chosen_at)
         select x.submission, $3, n.id, case when n.id is null then x.points end, x.not_assessed, x.chosen_by, x.chosen_at
         from scores x left join levels o on o.id = x.level left join levels n on n.criterion = $3 and n.title = o.title
         where x.submission = $1 and x.criterion = $2 and (n.id is not null or x.not_assessed
           or x.points <= (select max(points) from levels where criterion = $3))`,
        [submission, old.id, next.id],
      );
    }
    await tx.query('delete from scores where submission = $1 and criterion = $2', [submission, old.id]);
  }
}

export async function replaceScale(tx: Queries, assignment: string, scale: Scale): Promise<void> {
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
    `select a.id as assignment, a.title, c.title as course, ${RUBRIC_JSON()} as rubric
     from assignments a join courses c on c.id = a.course
     join enrolments e on e.course = c.id and e.person = $1 and e.role = 'teacher'
     where not c.second_marking and exists (select from criteria k where k.assignment = a.id) order by a.created_at desc, a.id limit 100`,
    [teacher],
  );
