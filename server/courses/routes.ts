import { Router } from 'express';
import { changeCourse, makeCourse, readCourse, readCourses } from '../../contract/courses.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { insertCourse, selectCourse, selectCourses, updateCourse } from './queries.ts';

export function courseRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readCourses, 'own', ({ person }) => selectCourses(db, person.id));

  serve(router, context, readCourse, 'course.read', async ({ params, standing }) => {
    const course = await selectCourse(db, params.course, standing.teacher);
    if (!course) throw problems.notFound();
    return course;
  });
  serve(router, context, makeCourse, 'own', ({ body, person }) => {
    if (!person.teaches) throw problems.notAllowed();
    return db.transaction((tx) => insertCourse(tx, body.title, person.id));
  });

  serve(router, context, changeCourse, 'course.set', async ({ params, body }) => {
    await updateCourse(db, params.course, body);
    return { id: params.course, title: body.title, teaches: true };
  });
  return router;
}
