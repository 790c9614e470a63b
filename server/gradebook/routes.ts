import { schemeProblem } from '#core/grading';
import { Router } from 'express';
import { changeCells, readCell, readGradebook, readOwnGrades, setScheme } from '../../contract/gradebook.ts';
import type { Context } from '../context.ts';
import { selectOne } from '../db/database.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectCells, placeOf } from '../grading/cells.ts';
import { changeCellsOf } from './change.ts';
import { selectColumns, updateScheme } from '../grading/columns.ts';
import { selectGradebook, selectOwnGrades } from './gradebook.ts';
import { selectHistory } from '../grading/history.ts';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';

/** The results of a course beside each other. */
export function gradebookRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readGradebook, 'course.set', ({ params }) => selectGradebook(db, params.course));

  serve(router, context, changeCells, 'course.set', async ({ params, body, person }) => ({
    cells: await db.transaction((tx) => changeCellsOf(tx, params.course, body, person.id)),
  }));

  serve(router, context, readCell, 'assignment.oversee', async ({ params }) => {
    const { course } = (await selectOne(db, z.object({ course: Id }), 'select course from assignments where id = $1', [
      params.assignment,
    ]))!;
    const found = (await selectCells(db, await selectColumns(db, course), [params])).get(placeOf(params));
    // Whose work it is would be seen by its changes.
    const changes = found?.cell.nameless ? [] : await selectHistory(db, params);
    return { explanation: found?.explanation ?? '', changes };
  });

  serve(router, context, setScheme, 'course.set', async ({ params, body }) => {
    const wrong = schemeProblem(body);
    if (wrong) throw problems.schemeRefused(wrong);
    await updateScheme(db, params.course, body);
    return {};
  });

  serve(router, context, readOwnGrades, 'own', ({ person }) => selectOwnGrades(db, person.id));
  return router;
}
