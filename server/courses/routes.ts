import { Router } from 'express';
import { readCourse, readCourses } from '../../contract/courses.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectCourse, selectCourses } from './queries.ts';

export function courseRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readCourses, 'own', ({ person }) => selectCourses(db, person.id));

  serve(router, context, readCourse, 'course.read', async ({ params, standing }) => {
    const course = await selectCourse(db, params.course, standing.teacher);
    if (!course) throw problems.notFound();
    return course;
  });
  return router;
}
