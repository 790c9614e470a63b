import { z } from 'zod';
import { Instant } from '../../contract/basics.ts';
import { blindTo, countFor, type Viewer } from '../access/visible.ts';

/** Whether a work `s` comes again after a return. */
export const BACK_AGAIN = `exists (select from submissions o where o.assignment = s.assignment and o.student = s.student
  and o.version < s.version and o.returned_at is not null)`;

/** What tells how far a work `s` is: how many remarks and scores it has; what is put aside does not count. */
export const workFacts = (
  viewer: Viewer,
): string => `s.version, s.handed_in_at as "handedInAt", s.returned_at as "returnedAt",
  case when not ${blindTo(viewer)} then s.ready_at end as "readyAt",
  ${countFor(
    viewer,
    `(select count(*)::int from remarks r where r.submission = s.id and r.put_aside_at is null and r.author <> s.student)`,
  )} as remarks,
  ${countFor(
    viewer,
    `((select count(*) from scores k where k.submission = s.id) +
      (select count(*) from question_points k where k.submission = s.id) +
      (select count(*) from adjustments k where k.submission = s.id and k.total is not null))::int`,
  )} as scores,
  ${BACK_AGAIN} as "backAgain"`;

export const WorkFacts = z.object({
  version: z.int(),
  handedInAt: Instant,
  returnedAt: Instant.nullable(),
  readyAt: Instant.nullable(),
  remarks: z.int(),
  scores: z.int(),
  backAgain: z.boolean(),
});

/** The version that counts; what was withdrawn is not there for a teacher. */
export const NEWEST = `s.withdrawn_at is null and not exists (
  select from submissions n where n.assignment = s.assignment and n.student = s.student
    and n.version > s.version and n.withdrawn_at is null)`;

/**
 * Answers `y` of the student about remark `r` after which no teacher has said anything, while there is something to say. What is
 * said about a remark that was dealt with comes along with the next version.
 */
export const unanswered = (
  viewer: Viewer,
): string => `not ${blindTo(viewer)} and y.author = s.student and r.settled_at is null and r.dealt_at is null and not exists (
  select from replies later where later.remark = y.remark and (later.made_at, later.id) > (y.made_at, y.id))`;
