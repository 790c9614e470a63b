import { z } from 'zod';
import { Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { Slip } from './joining.ts';

/** Somebody of the school, as its steward sees them: nothing about works. */
export const SchoolPerson = z.object({
  id: Id,
  name: z.string(),
  login: z.string(),
  steward: z.boolean(),
  /** Null until they have chosen a password. */
  cameInAt: Instant.nullable(),
  /** Titles of the courses that they teach, and of those that they learn in. */
  teaches: z.array(z.string()),
  learns: z.array(z.string()),
});
export type SchoolPerson = z.infer<typeof SchoolPerson>;

/** For the school's steward: everybody. */
export const readPeople = endpoint({
  method: 'GET',
  path: '/school/people',
  answer: z.object({ people: z.array(SchoolPerson) }),
});
/** A new way in for somebody who has none, or has forgotten their password. */
export const resetPerson = endpoint({
  method: 'POST',
  path: '/school/people/:person/slip',
  answer: z.object({ slip: Slip }),
});
