import { isDeepStrictEqual } from 'node:util';
import { z } from 'zod';
import { Id, Instant } from '../../contract/basics.ts';
import { CellValue, type CellStory } from '../../contract/gradebook.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { placeOf, selectCells, type Found, type Place } from './cells.ts';
import { selectColumns } from './columns.ts';

const NOTHING: CellValue = { points: null, flag: null, returned: false };

export const valueOf = (found: Found | undefined): CellValue =>
  found ? { points: found.cell.points, flag: found.cell.flag, returned: found.cell.returned } : NOTHING;

/** What is kept of how a result came about: of a new version, what it comes to, though what was returned stands in the cell. */
const keptOf = (found: Found | undefined): CellValue =>
  found?.coming ? { ...valueOf(found), points: found.coming.points, returned: false } : valueOf(found);

/** Of what was done to some places. */
interface Deed {
  places: readonly Place[];
  /** Null where it happens by itself. */
  person: string | null;
  why?: string;
}

/** Keeps how results changed. */
export async function insertHistory(
  tx: Queries,
  { places, person, why = '' }: Deed,
  before: ReadonlyMap<string, Found>,
  after: ReadonlyMap<string, Found>,
): Promise<void> {
  const changed = places
    .map((place) => ({
      ...{ assignment: place.assignment, student: place.student },
      was: keptOf(before.get(placeOf(place))),
      now: keptOf(after.get(placeOf(place))),
    }))
    .filter(({ was, now }) => !isDeepStrictEqual(was, now));
  if (changed.length === 0) return;
  await tx.query(
    `insert into grade_changes (assignment, student, changed_by, was, now, why)
     select x.assignment, x.student, $2, x.was, x.now, $3
     from jsonb_to_recordset($1::jsonb) as x(assignment uuid, student uuid, was jsonb, now jsonb)`,
    [JSON.stringify(changed), person, why],
  );
}

/** Does something to a student's result of an assignment, and keeps how it changed. Call in a transaction. */
export async function withHistory<T>(
  tx: Queries,
  { assignment, student }: Place,
  person: string | null,
  deed: () => Promise<T>,
  why = '',
): Promise<T> {
  const places = [{ assignment, student }];
  const { course } = (await selectOne(tx, z.object({ course: Id }), 'select course from assignments where id = $1', [
    assignment,
  ]))!;
  const columns = await selectColumns(tx, course, [assignment]);
  const before = await selectCells(tx, columns, places);
  const answer = await deed();
  await insertHistory(tx, { places, person, why }, before, await selectCells(tx, columns, places));
  return answer;
}

const PlaceRow = z.object({ assignment: Id, student: Id });

/** The same for the result of a work. */
export async function withWorkHistory<T>(
  tx: Queries,
  submission: string,
  person: string | null,
  deed: () => Promise<T>,
  why = '',
): Promise<T> {
  const place = await selectOne(tx, PlaceRow, 'select assignment, student from submissions where id = $1', [
    submission,
  ]);
  return place ? withHistory(tx, place, person, deed, why) : deed();
}

const ChangeRow = z.object({ at: Instant, by: z.string().nullable(), was: CellValue, now: CellValue, why: z.string() });

/** The newest first. */
export const selectHistory = (db: Queries, { assignment, student }: Place): Promise<CellStory['changes']> =>
  select(
    db,
    ChangeRow,
    `select h.changed_at as at, p.name as by, h.was, h.now, h.why from grade_changes h left join people p on p.id = h.changed_by
     where h.assignment = $1 and h.student = $2 order by h.id desc limit 200`,
    [assignment, student],
  );
