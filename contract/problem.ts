import { z } from 'zod';

/** RFC 9457 problem details. `detail` is a sentence that the person who reads it understands. */
export const Problem = z.object({
  type: z.string(),
  title: z.string(),
  status: z.int(),
  detail: z.string(),
  /** What stands there now, where somebody else has changed it meanwhile. */
  now: z.unknown().optional(),
});
export type Problem = z.infer<typeof Problem>;

/** The session is another person's than the one whom a request was made for. */
export const OTHER_PERSON = 'urn:vivid-margin:other-person';

export const PROBLEM_MEDIA_TYPE = 'application/problem+json';
