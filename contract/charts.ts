import { z } from 'zod';
import { Hundredths, Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Rubric } from './grading.ts';
import { Kind, MarginKey } from './margin-key.ts';

const Kinds = z.record(Kind, z.int());

/** What the charts of an assignment are drawn from, of one work. */
export const ChartWork = z.object({
  submission: Id,
  student: z.string(),
  points: Hundredths.nullable(),
  possible: Hundredths.nullable(),
  /** By criteria; those that were given a level. */
  levels: z.record(Id, Id),
  /** When a teacher did something about it, the first time first. */
  moments: z.array(Instant),
  /** When its last score was given. */
  judgedAt: Instant.nullable(),
});
export type ChartWork = z.infer<typeof ChartWork>;

export const AssignmentCharts = z.object({ title: z.string(), rubric: Rubric, works: z.array(ChartWork) });
export type AssignmentCharts = z.infer<typeof AssignmentCharts>;

/** Works that are marked without names are in no chart before they are returned. */
export const readCharts = endpoint({
  method: 'GET',
  path: '/assignments/:assignment/charts',
  answer: AssignmentCharts,
});

/** What each student of a course has been told. */
export const CourseVoice = z.object({
  marginKey: MarginKey,
  students: z.array(
    z.object({
      student: Id,
      name: z.string(),
      /** Of recordings. */
      seconds: z.number(),
      kinds: Kinds,
      /** Their newest work; null where there is none. */
      submission: Id.nullable(),
    }),
  ),
});
export type CourseVoice = z.infer<typeof CourseVoice>;

export const readVoice = endpoint({ method: 'GET', path: '/courses/:course/voice', answer: CourseVoice });
