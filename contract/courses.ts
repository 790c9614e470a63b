import { z } from 'zod';
import { Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { MarginKey } from './margin-key.ts';

/** A course that somebody teaches or learns in. */
export const CourseSummary = z.object({
  id: Id,
  title: z.string(),
  teaches: z.boolean(),
  /** It is over: read, and nothing new comes into it. */
  aside: z.boolean(),
});
export type CourseSummary = z.infer<typeof CourseSummary>;

export const Course = CourseSummary.extend({
  teachers: z.array(z.string()),
  /** For its teachers; students do not see each other. */
  students: z.array(z.string()),
  /** How many of them have never come in; null for students. */
  notIn: z.int().nullable(),
  /** Names of the parts of its year. */
  terms: z.array(z.string()),
  marginKey: MarginKey,
  assignments: z.array(
    z.object({
      id: Id,
      title: z.string(),
      dueAt: Instant.nullable(),
      /** Students see it. */
      open: z.boolean(),
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

const CourseTitle = z.string().trim().min(1, 'Give the course a title').max(200);
export const makeCourse = endpoint({
  method: 'POST',
  path: '/courses',
  body: z.object({ title: CourseTitle }),
  answer: CourseSummary,
});
export const changeCourse = endpoint({
  method: 'PATCH',
  path: '/courses/:course',
  body: z
    .object({
      title: CourseTitle,
      terms: z.array(z.string().trim().min(1).max(60)).max(20),
      aside: z.boolean(),
    })
    .partial(),
  answer: CourseSummary,
});
/** The same course for another year, without students, works and dates. */
export const copyCourse = endpoint({
  method: 'POST',
  path: '/courses/:course/copy',
  body: z.object({ title: CourseTitle }),
  answer: CourseSummary,
});
