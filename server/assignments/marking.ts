import type { Marking } from '#core/grading';
import type { Standing } from '../../contract/grading.ts';
import type { AssignmentSettings } from '../../contract/assignments.ts';
import type { Queries } from '../db/database.ts';

/** How an assignment `a` is graded. */
export const MARKING_JSON = `jsonb_build_object('shown', a.shown, 'decimals', a.decimals, 'halfSteps', a.half_steps,
  'possible', (a.possible * 100)::int, 'late', a.late_rule)`;

/** When the work of a student `student` in an assignment `a` is due. */
export const dueOf = (student: string): string =>
  `coalesce((select x.extended_until from standings x where x.assignment = a.id and x.student = ${student}), a.due_at)`;

/** What a teacher has decided about a student `student` in an assignment `a`. */
export const standingOf = (student: string): string =>
  `coalesce((select jsonb_build_object('flag', x.flag, 'extendedUntil', x.extended_until) from standings x
    where x.assignment = a.id and x.student = ${student}), '{"flag": null, "extendedUntil": null}')`;

/** Who was given more time tells whose a work is. */
export const withoutTime = (standing: Standing, nameless: boolean): Standing =>
  nameless ? { ...standing, extendedUntil: null } : standing;

export async function updateMarking(db: Queries, assignment: string, marking: Marking): Promise<void> {
  const { shown, decimals, halfSteps, possible, late } = marking;
  await db.query(
    `update assignments set shown = $2, decimals = $3, half_steps = $4, possible = $5::int / 100.0, late_rule = $6::jsonb
     where id = $1`,
    [assignment, shown, decimals, halfSteps, possible, late && JSON.stringify(late)],
  );
}

/** When an assignment `a` counts, how much, and what may be handed in. */
export const RULE_COLUMNS = 'a.term, a.category, (a.weight * 100)::int as weight, a.attempts, a.formats, a.extra';

export async function updateRules(
  db: Queries,
  assignment: string,
  {
    term,
    category,
    weight,
    attempts,
    formats,
    extra,
  }: Pick<AssignmentSettings, 'term' | 'category' | 'weight' | 'attempts' | 'formats' | 'extra'>,
): Promise<void> {
  await db.query(
    `update assignments set term = $2, category = $3, weight = $4::int / 100.0, attempts = $5, formats = $6::jsonb, extra = $7 where id = $1`,
    [assignment, term, category, weight, attempts, formats && JSON.stringify(formats), extra],
  );
}
