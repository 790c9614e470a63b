import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { Gradebook, OwnGrades } from '../../contract/gradebook.ts';
import { select, type Queries } from '../db/database.ts';
import { selectBlind, withoutBlind } from '../grading/blind.ts';
import { placeOf, selectCells, type Found } from '../grading/cells.ts';
import { columnOf, selectColumns, selectCourseScheme } from '../grading/columns.ts';

const StudentRow = z.object({ id: Id, name: z.string(), left: z.boolean() });

/** As one of its teachers sees it. */
export async function selectGradebook(db: Queries, course: string, person: string): Promise<Gradebook> {
  const { id, title, terms, scheme } = await selectCourseScheme(db, course);
  const columns = await selectColumns(db, course);
  const students = await select(
    db,
    StudentRow,
    `select p.id, p.name, e.role = 'left' as "left" from enrolments e join people p on p.id = e.person
     where e.course = $1 and e.role in ('student', 'left') order by p.name, p.id`,
    [course],
  );
  const cells = await selectCells(db, columns, undefined, students.length);
  const blind = await selectBlind(db, person);
  return {
    ...{ course: { id, title }, terms, scheme },
    columns: columns.map(columnOf),
    rows: students.map((student) => ({
      ...student,
      cells: columns.map(({ id: assignment }) =>
        withoutBlind(cells.get(placeOf({ assignment, student: student.id }))?.cell, blind),
      ),
    })),
  };
}

/** A student's own results in all their courses: what was returned, and what was decided about them. */
export async function selectOwnGrades(db: Queries, student: string): Promise<OwnGrades[]> {
  const courses = await select(
    db,
    z.object({ id: Id }),
    `select c.id from courses c join enrolments e on e.course = c.id and e.person = $1 and e.role = 'student'
     order by c.put_aside_at nulls first, c.title, c.id`,
    [student],
  );
  const own: OwnGrades[] = [];
  for (const { id } of courses) {
    const { title, aside, scheme } = await selectCourseScheme(db, id);
    const columns = (await selectColumns(db, id)).filter(({ open }) => open);
    const places = columns.map((column) => ({ assignment: column.id, student }));
    const cells = await selectCells(db, columns, places);
    own.push({
      course: { id, title, aside },
      scheme: scheme.shown ? scheme : null,
      columns: columns.map((column) => {
        const { open: _, ...shown } = columnOf(column);
        return shown;
      }),
      cells: places.map((place) => ownCell(cells.get(placeOf(place)))),
    });
  }
  return own;
}

function ownCell(found: Found | undefined): OwnGrades['cells'][number] {
  if (!found) return null;
  const { submission, state, points, possible, grade, flag, late, returned, spoken, heard } = found.cell;
  const [mine, silent] = [state === 'returned', found.held === 'remarks'];
  return {
    ...{ submission: mine ? submission : null, state: mine ? state : null, flag, late: mine && late },
    ...(returned ? { points, possible, grade } : { points: null, possible: null, grade: null }),
    ...(mine && !silent ? { spoken, heard } : { spoken: 0, heard: 0 }),
  };
}
