import { z } from 'zod';
import { Id, Instant, Nothing, Person, Zone } from './basics.ts';
import { endpoint } from './endpoint.ts';

export const SignIn = z.union([
  z.object({ login: z.string().min(1).max(100), password: z.string().min(1).max(1000) }),
  z.object({ samplePerson: Id }),
]);
export type SignIn = z.infer<typeof SignIn>;

/** Each request of the app says for whom it was made: in another tab somebody else may have signed in since. */
export const PERSON_HEADER = 'X-Vivid-Person';

export const SHORTEST_PASSWORD = 8;
export const NewPassword = z
  .string()
  .min(SHORTEST_PASSWORD, `A password has at least ${SHORTEST_PASSWORD} characters`)
  .max(1000)
  .refine((password) => password.trim() !== '', 'A password is more than spaces');

export const Session = z.object({
  person: Person.nullable(),
  /** Looks after the people of the school. */
  steward: z.boolean().optional(),
  /** Of the clock by which they were here last; null where nobody knows. */
  zone: Zone.nullable().optional(),
});
export type Session = z.infer<typeof Session>;

export const readSession = endpoint({ method: 'GET', path: '/session', answer: Session });
export const signIn = endpoint({ method: 'POST', path: '/session', body: SignIn, answer: Session });
/** By which clock this person is here: their quiet hours are by it. */
export const setZone = endpoint({
  method: 'PUT',
  path: '/session/zone',
  body: z.object({ zone: Zone }),
  answer: Nothing,
});
export const signOut = endpoint({ method: 'DELETE', path: '/session', answer: Nothing });
/** A browser in which somebody is signed in. */
export const SignedInAt = z.object({ openedAt: Instant, seenAt: Instant, browser: z.string(), here: z.boolean() });
export type SignedInAt = z.infer<typeof SignedInAt>;
export const readSessions = endpoint({ method: 'GET', path: '/sessions', answer: z.array(SignedInAt) });
/** Ends every session of this person, in this browser too. */
export const signOutEverywhere = endpoint({ method: 'DELETE', path: '/sessions', answer: Nothing });
/** Ends the sessions in all other browsers. */
export const changePassword = endpoint({
  method: 'PUT',
  path: '/password',
  body: z.object({ current: z.string().min(1).max(1000), next: NewPassword }),
  answer: Nothing,
});
