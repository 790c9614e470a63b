import { schemeProblem } from '#core/grading';
import { Router } from 'express';
import {
  changeCells,
  gradesCsv,
  gradesXlsx,
  readCell,
  readGradebook,
  readGradeTable,
  readOwnGrades,
  readReport,
  setScheme,
} from '../../contract/gradebook.ts';
import type { Context } from '../context.ts';
import { selectOne } from '../db/database.ts';
import { problems } from '../errors.ts';
import { saveAs } from '../http/save-as.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { selectMembers } from '../roster/queries.ts';
import { selectBlind, withoutBlind } from '../grading/blind.ts';
import { selectCells, placeOf } from '../grading/cells.ts';
import { changeCellsOf } from './change.ts';
import { selectColumns, updateScheme } from '../grading/columns.ts';
import { selectGradebook, selectOwnGrades } from './gradebook.ts';
import { readTable } from '../documents/read-table.ts';
import { selectReport } from './report.ts';
import { fileNameFor, gradesAsCsv, gradesAsXlsx } from './tables.ts';
import { selectHistory } from '../grading/history.ts';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';

const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

/** The results of a course beside each other. */
export function gradebookRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readGradebook, 'course.set', ({ params, person }) =>
    selectGradebook(db, params.course, person.id),
  );

  serve(router, context, changeCells, 'course.set', async ({ params, body, person }) => ({
    cells: await db.transaction((tx) => changeCellsOf(tx, params.course, body, person.id)),
  }));

  serve(router, context, readCell, 'assignment.oversee', async ({ params, person }) => {
    const { course } = (await selectOne(db, z.object({ course: Id }), 'select course from assignments where id = $1', [
      params.assignment,
    ]))!;
    const found = (await selectCells(db, await selectColumns(db, course), [params])).get(placeOf(params));
    // Whose work it is would be seen by its changes.
    if (withoutBlind(found?.cell, await selectBlind(db, person.id))?.nameless) return { explanation: '', changes: [] };
    return { explanation: found?.explanation ?? '', changes: await selectHistory(db, params) };
  });

  serve(router, context, readReport, 'course.set', async ({ params, person }) => {
    const report = await selectReport(db, params.course, params.student, person.id);
    if (!report) throw problems.notFound();
    return report;
  });

  serve(router, context, setScheme, 'course.set', async ({ params, body }) => {
    const wrong = schemeProblem(body);
    if (wrong) throw problems.schemeRefused(wrong);
    await updateScheme(db, params.course, body);
    return {};
  });

  serve(router, context, readGradeTable, 'course.set', async ({ file, person }) => ({
    rows: await readTable(context, person.id, file!),
  }));

  serveBytes(router, context, gradesCsv, 'course.set', async (params, _request, response, person) => {
    const book = await selectGradebook(db, params.course, person.id);
    const lines = gradesAsCsv(book, await selectMembers(db, params.course));
    await saveAs(response, fileNameFor(book, 'csv'), 'text/csv; charset=utf-8', lines);
  });

  serveBytes(router, context, gradesXlsx, 'course.set', async (params, _request, response, person) => {
    const book = await selectGradebook(db, params.course, person.id);
    const bytes = gradesAsXlsx(book, await selectMembers(db, params.course));
    await saveAs(response, fileNameFor(book, 'xlsx'), XLSX, bytes);
  });

  serve(router, context, readOwnGrades, 'own', ({ person }) => selectOwnGrades(db, person.id));
  return router;
}
