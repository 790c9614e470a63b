import { z } from 'zod';
import { Id, Instant, Nothing } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { PersonName, Slip } from './joining.ts';

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
  /** Empty where nobody said. */
  mail: z.string(),
  number: z.string(),
  /** Courses that a teacher has invited them to, and they have not answered. */
  invited: z.array(z.object({ course: Id, title: z.string() })),
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

/** Corrects how somebody is called and known. */
export const changePerson = endpoint({
  method: 'PATCH',
  path: '/school/people/:person',
  body: z.object({ name: PersonName, mail: z.string().trim().max(200), number: z.string().trim().max(40) }).partial(),
  answer: Nothing,
});
/** Somebody was entered twice: what this one handed in is the other's from now on, and this one is gone. */
export const mergePerson = endpoint({
  method: 'POST',
  path: '/school/people/:person/merged',
  body: z.object({ into: Id }),
  answer: Nothing,
});
/** Accepts for somebody what they were invited to. */
export const acceptFor = endpoint({
  method: 'PUT',
  path: '/school/people/:person/invitations/:course',
  answer: Nothing,
});
