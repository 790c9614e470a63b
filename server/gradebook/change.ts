import { pointsProblem } from '#core/grading';
import { isDeepStrictEqual } from 'node:util';
import type { CellChange, CellChanges, PlacedCell } from '../../contract/gradebook.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { selectBlind } from '../grading/blind.ts';
import { placeOf, selectCells, type Found } from '../grading/cells.ts';
import { selectColumns, type Column } from '../grading/columns.ts';
import { insertHistory, valueOf } from '../grading/history.ts';

/** Changes cells, all of them or none. Call in a transaction. */
export async function changeCellsOf(
  tx: Queries,
  course: string,
  { changes, why }: CellChanges,
  person: string,
): Promise<PlacedCell[]> {
  // One after another: each sees what the one before it has done.
  await tx.query('select from courses where id = $1 for update', [course]);
  const columns = await selectColumns(tx, course, [...new Set(changes.map(({ assignment }) => assignment))]);
  await refuseStrangers(tx, course, columns, changes);
  const before = await selectCells(tx, columns, changes);
  const blind = await selectBlind(tx, person);
  for (const change of changes) {
    const found = before.get(placeOf(change));
    if (found?.cell.submission && blind.has(found.cell.submission)) throw problems.blind();
    refuseWrong(change, found, columns);
  }

  await setFlags(tx, changes, person);
  await setPoints(tx, changes, before, { person, why });
  await setReturned(tx, changes);
  const after = await selectCells(tx, columns, changes);
  await insertHistory(tx, { places: changes, person, why }, before, after);
  return changes.map(({ assignment, student }) => ({
    ...{ assignment, student },
    cell: after.get(placeOf({ assignment, student }))?.cell ?? null,
  }));
}

async function refuseStrangers(
  tx: Queries,
  course: string,
  columns: readonly Column[],
  changes: readonly CellChange[],
): Promise<void> {
  const known = new Set(columns.map(({ id }) => id));
  const places = new Set(changes.map(placeOf));
  if (places.size < changes.length) throw problems.cellTwice();
  if (changes.some(({ assignment }) => !known.has(assignment))) throw problems.notFound();
  const students = new Set(
    (await tx.query("select person from enrolments where course = $1 and role in ('student', 'left')", [course])).map(
      ({ person }) => String(person),
    ),
  );
  if (changes.some(({ student }) => !students.has(student))) throw problems.notAStudent();
}

function refuseWrong(
  { assignment, student, to, was }: CellChange,
  found: Found | undefined,
  columns: readonly Column[],
): void {
  const now = valueOf(found);
  // A flag beside the name would be seen at the nameless work.
  if (found?.cell.nameless) throw problems.marksNameless();
  if (was && !isDeepStrictEqual(now, was) && !isDeepStrictEqual(now, { ...now, ...to }))
    throw problems.changedMeanwhile({ assignment, student, ...now });
  const work = found?.cell.submission !== null && found?.cell.submission !== undefined;
  const given = work && found.cell.state === 'returned';
  if (found?.cell.again && to.points !== undefined && to.points !== now.points) throw problems.newVersionWaits();
  if (given && to.points !== undefined && to.points !== now.points) throw problems.returned();
  if (to.points === undefined || to.points === null) return;
  const possible = found?.cell.possible ?? columns.find(({ id }) => id === assignment)!.possible;
  if (possible === null) throw problems.nothingPossible();
  const problem = pointsProblem(to.points, possible);
  if (problem !== undefined && to.points !== now.points) throw problems.gradeRefused(problem);
}

async function setFlags(tx: Queries, changes: readonly CellChange[], person: string): Promise<void> {
  const flags = changes.flatMap(({ assignment, student, to }) =>
    to.flag === undefined ? [] : [{ assignment, student, flag: to.flag }],
  );
  if (flags.length === 0) return;
  await tx.query(
    `insert into standings (assignment, student, flag, set_by)
     select x.assignment, x.student, x.flag, $2 from jsonb_to_recordset($1::jsonb) as x(assignment uuid, student uuid, flag text)
     on conflict (assignment, student) do update set flag = excluded.flag, set_by = excluded.set_by, set_at = now()`,
    [JSON.stringify(flags), person],
  );
}

/** Where there is a work, its total; otherwise a result of its own. */
async function setPoints(
  tx: Queries,
  changes: readonly CellChange[],
  before: ReadonlyMap<string, Found>,
  { person, why }: { person: string; why: string },
): Promise<void> {
  const typed = changes.flatMap(({ assignment, student, to }) => {
    const submission = before.get(placeOf({ assignment, student }))?.cell.submission ?? null;
    return to.points === undefined ? [] : [{ assignment, student, submission, points: to.points }];
  });
  const works = JSON.stringify(typed.filter(({ submission }) => submission !== null));
  const others = JSON.stringify(typed.filter(({ submission }) => submission === null));
  const given = (json: string): boolean => json !== '[]';

  if (given(works)) {
    const some = 'jsonb_to_recordset($1::jsonb) as x(submission uuid, points int)';
    await tx.query(
      `insert into adjustments (submission, total, reason, set_by)
       select x.submission, x.points / 100.0, $2, $3 from ${some} where x.points is not null
       on conflict (submission) do update set total = excluded.total, reason = excluded.reason, set_by = excluded.set_by, set_at = now()`,
      [works, why || 'typed in the gradebook', person],
    );
    await tx.query(
      `update adjustments j set total = null, set_by = $2, set_at = now() from ${some} where j.submission = x.submission and x.points is null`,
      [works, person],
    );
    await tx.query(
      `delete from adjustments j using ${some} where j.submission = x.submission and j.total is null and j.extra is null`,
      [works],
    );
    await tx.query(
      `update submissions s set opened_at = now() from ${some} where s.id = x.submission and s.opened_at is null`,
      [works],
    );
    // What was typed before the work came is its result no more.
    await tx.query(
      `delete from entered_grades g using jsonb_to_recordset($1::jsonb) as x(assignment uuid, student uuid)
       where g.assignment = x.assignment and g.student = x.student`,
      [works],
    );
  }
  if (given(others)) {
    const some = 'jsonb_to_recordset($1::jsonb) as x(assignment uuid, student uuid, points int)';
    // What is corrected goes out anew.
    await tx.query(
      `insert into entered_grades (assignment, student, points, entered_by)
       select x.assignment, x.student, x.points / 100.0, $2 from ${some} where x.points is not null
       on conflict (assignment, student) do update set points = excluded.points, entered_by = excluded.entered_by,
         entered_at = now(), returned_at = null`,
      [others, person],
    );
    await tx.query(
      `delete from entered_grades g using ${some} where g.assignment = x.assignment and g.student = x.student and x.points is null`,
      [others],
    );
  }
}

/** What was typed without a work goes out, or is taken back. */
async function setReturned(tx: Queries, changes: readonly CellChange[]): Promise<void> {
  const given = changes.flatMap(({ assignment, student, to }) =>
    to.returned === undefined ? [] : [{ assignment, student, returned: to.returned }],
  );
  if (given.length === 0) return;
  await tx.query(
    `update entered_grades g set returned_at = case when x.returned then coalesce(g.returned_at, now()) end
     from jsonb_to_recordset($1::jsonb) as x(assignment uuid, student uuid, returned boolean)
     where g.assignment = x.assignment and g.student = x.student`,
    [JSON.stringify(given)],
  );
}
