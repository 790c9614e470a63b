import { z } from 'zod';
import { Id, Instant, Zone } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { SchoolName } from './school.ts';
import { NewPassword, Session } from './session.ts';

/** As it was typed: without the hyphens, in small letters or large ones. */
export const Code = z.string().trim().min(1).max(60);

export const PersonName = z.string().trim().min(1, 'Give a name').max(200).regex(/\p{L}/u, 'A name has letters in it');

/** What a code opens, so that whoever has it sees that they are right. */
export const Opened = z.object({
  opens: z.enum(['school', 'person', 'course']),
  /** Empty while the school has none. */
  school: z.string(),
  course: z.string().nullable(),
  /** Whose account it is; null where whoever comes in says so. */
  name: z.string().nullable(),
  login: z.string().nullable(),
});
export type Opened = z.infer<typeof Opened>;

/** A way in for one person: printed, or sent to them. It works once. */
export const Slip = z.object({
  person: Id,
  name: z.string(),
  login: z.string(),
  /** Empty where nobody said. */
  mail: z.string(),
  code: z.string(),
  expiresAt: Instant,
});
export type Slip = z.infer<typeof Slip>;

export const lookAtCode = endpoint({
  method: 'POST',
  path: '/joining/look',
  body: z.object({ code: Code }),
  answer: Opened,
});
/** Chooses a password and comes in. */
export const join = endpoint({
  method: 'POST',
  path: '/joining',
  body: z.object({ code: Code, password: NewPassword, name: PersonName.optional() }),
  answer: Session.extend({ login: z.string() }),
});
/** Names the school and makes its first teacher. */
export const openSchool = endpoint({
  method: 'POST',
  path: '/school',
  body: z.object({ code: Code, school: SchoolName, zone: Zone, name: PersonName, password: NewPassword }),
  answer: Session.extend({ login: z.string() }),
});

/** New ways in for people of a course; those that they had before do not work any more. */
export const makeSlips = endpoint({
  method: 'POST',
  path: '/courses/:course/slips',
  /** `byMail`: whoever has an address gets an invitation, where the school has a mail server. */
  body: z.object({ people: z.array(Id).min(1).max(1000), byMail: z.boolean().default(false) }),
  answer: z.object({ slips: z.array(Slip), mailed: z.int() }),
});
/** One code for the whole course. A new one takes the place of the one before. */
export const makeCourseCode = endpoint({
  method: 'POST',
  path: '/courses/:course/code',
  answer: z.object({ code: z.string(), expiresAt: Instant }),
});
export const endCourseCode = endpoint({ method: 'DELETE', path: '/courses/:course/code', answer: z.object({}) });
