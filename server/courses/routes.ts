import { Router } from 'express';
import { makeAssignment } from '../../contract/assignments.ts';
import {
  changeCourse,
  copyCourse as copyCourseEndpoint,
  makeCourse,
  readCourse,
  readCourses,
} from '../../contract/courses.ts';
import { insertAssignment } from '../assignments/queries.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { copyAssignment, copyCourse, teachesAssignment } from './copy.ts';
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

  serve(router, context, changeCourse, 'course.set', ({ params, body }) => updateCourse(db, params.course, body));

  serve(router, context, copyCourseEndpoint, 'course.set', ({ params, body, person }) =>
    db.transaction((tx) => copyCourse(tx, params.course, body.title, person.id)),
  );

  serve(
    router,
    context,
    makeAssignment,
    'course.set',
    async ({ params: { course }, body: { title, from }, person }) => {
      if (from === undefined) return { id: await insertAssignment(db, course, title) };
      if (!(await teachesAssignment(db, from, person.id))) throw problems.notFound();
      return { id: await db.transaction((tx) => copyAssignment(tx, from, course, title)) };
    },
  );
  return router;
}
