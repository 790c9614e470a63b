import { keyEntry } from '#core/margin';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { StudentReport } from '../../contract/gradebook.ts';
import type { Remark } from '../../contract/remarks.ts';
import { asStudent } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { selectBlind, withoutBlind } from '../grading/blind.ts';
import { placeOf, selectCells, type Found } from '../grading/cells.ts';
import { columnOf, selectColumns, selectCourseScheme } from '../grading/columns.ts';
import { selectRubricOf } from '../grading/queries.ts';
import { selectCourseKey } from '../margin-key/queries.ts';
import { selectRemarks } from '../remarks/queries.ts';

type Details = StudentReport['details'][number];
const NOTHING: Details = { explanation: '', remarks: [] };

/** What a student of a course sees of it, with the words of what was said; undefined where they are none. */
export async function selectReport(
  db: Queries,
  course: string,
  student: string,
  person: string,
): Promise<StudentReport | undefined> {
  const found = Id.safeParse(student).success
    ? await selectOne(
        db,
        z.object({ name: z.string() }),
        `select p.name from enrolments e join people p on p.id = e.person
         where e.course = $1 and e.person = $2 and e.role in ('student', 'left')`,
        [course, student],
      )
    : undefined;
  if (!found) return undefined;
  const { title, scheme } = await selectCourseScheme(db, course);
  const columns = await selectColumns(db, course);
  const places = columns.map(({ id: assignment }) => ({ assignment, student }));
  const cells = await selectCells(db, columns, places);
  const blind = await selectBlind(db, person);
  // Drafts are nobody's to be handed out.
  const shown = places.map((place) => {
    const one = cells.get(placeOf(place));
    return one && !withoutBlind(one.cell, blind)?.nameless && (one.cell.returned || one.cell.flag) ? one : undefined;
  });
  const details: Details[] = [];
  for (const one of shown) details.push(one ? await detailsOf(db, course, one, student) : NOTHING);
  return {
    ...{ student: found.name, course: { id: course, title }, scheme, columns: columns.map(columnOf), details },
    cells: shown.map((one) => (one ? visible(one) : null)),
  };
}

const visible = ({ cell }: Found): Found['cell'] =>
  cell.returned ? cell : { ...cell, points: null, possible: null, grade: null };

async function detailsOf(
  db: Queries,
  course: string,
  { cell, explanation, held }: Found,
  student: string,
): Promise<Details> {
  if (!cell.returned) return NOTHING;
  if (cell.state !== 'returned' || held === 'remarks') return { explanation, remarks: [] };
  const key = await selectCourseKey(db, course);
  const rubric = await selectRubricOf(db, cell.submission!);
  const remarks = (await selectRemarks(db, { submission: cell.submission! }, asStudent)).filter(
    ({ author }) => author.id !== student,
  );
  const heard = await selectHeard(db, remarks, student);
  return {
    explanation,
    remarks: remarks.map((remark) => {
      const { name: kind, glyph } = keyEntry(key, remark.kind);
      return {
        ...{ kind, glyph, passage: remark.anchor.type === 'passage' ? remark.anchor.quote.exact : '' },
        criterion: rubric.find(({ id }) => id === remark.criterion)?.title ?? null,
        words: wordsOf(remark),
        ...{ spoken: remark.recording !== null, heard: heard.has(remark.recording?.id ?? '') },
      };
    }),
  };
}

const wordsOf = ({ recording, text, suggestion, reaction, link }: Remark): string =>
  [recording?.transcript?.text, text, suggestion === null ? null : `Suggested: “${suggestion}”`, reaction, link]
    .filter(Boolean)
    .join('\n');

async function selectHeard(db: Queries, remarks: readonly Remark[], student: string): Promise<Set<string>> {
  const rows = await select(
    db,
    z.object({ id: Id }),
    'select recording as id from listenings where person = $1 and finished_at is not null and recording = any($2::uuid[])',
    [student, remarks.flatMap(({ recording }) => recording?.id ?? [])],
  );
  return new Set(rows.map(({ id }) => id));
}
