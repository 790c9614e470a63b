import { Router } from 'express';
import { readCourse, readCourses } from '../../contract/courses.ts';
import { setMarginKey } from '../../contract/margin-key.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectCourse, selectCourses, selectKindsInUse, updateMarginKey } from './queries.ts';

export function courseRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, setMarginKey, 'course.set', ({ params, body: { key } }) =>
    db.transaction(async (tx) => {
      await tx.query('select from courses where id = $1 for update', [params.course]);
      const missing = (await selectKindsInUse(tx, params.course)).find(
        ({ kind }) => !key.some((entry) => entry.kind === kind),
      );
      if (missing) throw problems.kindInUse(missing.remarks);
      await updateMarginKey(tx, params.course, key);
      return { key };
    }),
  );
  serve(router, context, readCourses, 'own', ({ person }) => selectCourses(db, person.id));

  serve(router, context, readCourse, 'course.read', async ({ params, standing }) => {
    const course = await selectCourse(db, params.course, standing.teacher);
    if (!course) throw problems.notFound();
    return course;
  });
  return router;
}
