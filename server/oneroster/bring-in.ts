import { lockOf } from '#core/gradebook';
import type { IncomingClass, OneRosterPlan, Own } from '#core/oneroster';
import { fromLocal } from '#core/workflow';
import { Id } from '../../contract/basics.ts';
import type { BroughtIn } from '../../contract/oneroster.ts';
import { insertAssignment } from '../assignments/queries.ts';
import type { Database, Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { changeCellsOf } from '../gradebook/change.ts';
import { selectGradebook } from '../gradebook/gradebook.ts';
import { bringInOne } from '../roster/bring-in.ts';
import { deleteEnrolments, selectKnown } from '../roster/queries.ts';
import { selectSchool } from '../school/people.ts';

/** So many cells are changed in one transaction: others get their turn between them. */
const AT_ONCE = 500;
const LONGEST_CATEGORY = 60;
const WHY = 'brought in from a OneRoster file';

/** The course as it is, for a plan. */
export async function selectOwn(db: Queries, course: string, person: string, incoming: IncomingClass): Promise<Own> {
  const { columns, rows } = await selectGradebook(db, course, person);
  const [rowOf, columnOf] = [new Map(rows.map((row) => [row.id, row])), new Map(columns.map(({ id }, at) => [id, at]))];
  const ids = incoming.students.flatMap(({ id }) => (Id.safeParse(id).success ? [id] : []));
  return {
    known: await selectKnown(db, { course, teacher: person, ids }),
    columns,
    cellOf(student, assignment) {
      const cell = rowOf.get(student)?.cells[columnOf.get(assignment)!];
      return { points: cell?.points ?? null, flag: cell?.flag ?? null, locked: lockOf(cell) };
    },
  };
}

/** Does what a plan says, all of it or nothing. */
export async function bringIn(
  db: Database,
  course: string,
  plan: OneRosterPlan,
  own: Own,
  person: string,
): Promise<BroughtIn> {
  const done: BroughtIn = { people: [], assignments: [], cells: [] };
  const [studentOf, itemOf] = [new Map<string, string>(), new Map<string, string>()];
  const { zone } = await selectSchool(db);
  await db.transaction(async (tx) => {
    await tx.query('select from courses where id = $1 for update', [course]);
    for (const { incoming, person: known, fate } of plan.students) {
      const line = { ...incoming, ...(fate === 'add' ? { fate } : { fate, person: known! }) };
      const id = await bringInOne(tx, course, line, person);
      studentOf.set(incoming.id, id);
      if (fate !== 'known') done.people.push(id);
    }
    for (const { incoming, assignment } of plan.items) {
      const id = assignment ?? (await insertAssignment(tx, course, incoming.title));
      itemOf.set(incoming.id, id);
      if (assignment !== null) continue;
      await tx.query(
        'update assignments set due_at = $2::timestamptz, category = $3, possible = $4::int / 100.0 where id = $1',
        [
          id,
          incoming.due && fromLocal(`${incoming.due}T23:59`, zone),
          incoming.category.slice(0, LONGEST_CATEGORY),
          incoming.possible,
        ],
      );
      done.assignments.push(id);
    }
  });
  const changes = plan.cells.map(({ student, item, to }) => ({
    ...{ student: studentOf.get(student)!, assignment: itemOf.get(item)!, to },
  }));
  try {
    for (let from = 0; from < changes.length; from += AT_ONCE) {
      const some = changes.slice(from, from + AT_ONCE);
      await db.transaction((tx) => changeCellsOf(tx, course, { changes: some, why: WHY }, person));
      done.cells.push(
        ...some.map(({ student, assignment }) => {
          const { points, flag } = own.cellOf(student, assignment);
          return { student, assignment, to: { points: flag === null ? points : null, flag } };
        }),
      );
    }
  } catch (error) {
    await takeBack(db, course, done, person);
    throw error;
  }
  return done;
}

/** Students who have handed in something stay, as do assignments that are not as they came. */
export async function takeBack(db: Database, course: string, done: BroughtIn, person: string): Promise<void> {
  for (let from = 0; from < done.cells.length; from += AT_ONCE) {
    const changes = done.cells.slice(from, from + AT_ONCE);
    await db.transaction((tx) => changeCellsOf(tx, course, { changes, why: 'taken back' }, person));
  }
  await db.transaction(async (tx) => {
    const kept = await tx.query(
      `select 1 as one from assignments a where a.course = $1 and a.id = any($2::uuid[])
         and (exists (select from submissions s where s.assignment = a.id)
           or exists (select from criteria k where k.assignment = a.id)
           or exists (select from questions q where q.assignment = a.id)
           or exists (select from entered_grades g where g.assignment = a.id)
           or a.created_at < now() - interval '1 day')`,
      [course, done.assignments],
    );
    if (kept.length > 0) throw problems.importUsed();
    await tx.query('delete from assignments where course = $1 and id = any($2::uuid[])', [course, done.assignments]);
    await deleteEnrolments(tx, course, done.people);
  });
}
