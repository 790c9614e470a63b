import { z } from 'zod';
import { Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';

/** A course that somebody teaches or learns in. */
export const CourseSummary = z.object({ id: Id, title: z.string(), teaches: z.boolean() });
export type CourseSummary = z.infer<typeof CourseSummary>;

export const Course = CourseSummary.extend({
  teachers: z.array(z.string()),
  /** For its teachers; students do not see each other. */
  students: z.array(z.string()),
  assignments: z.array(
    z.object({
      id: Id,
      title: z.string(),
      dueAt: Instant.nullable(),
      /** How many students have handed in, and have their work back; nulls for students. */
      handedIn: z.int().nullable(),
      returned: z.int().nullable(),
    }),
  ),
});
export type Course = z.infer<typeof Course>;

/** Those that one teaches first. */
export const readCourses = endpoint({ method: 'GET', path: '/courses', answer: z.array(CourseSummary) });
export const readCourse = endpoint({ method: 'GET', path: '/courses/:course', answer: Course });
