import { z } from 'zod';
import { Id, Nothing, Person } from './basics.ts';
import { endpoint } from './endpoint.ts';

export const SignIn = z.union([
  z.object({ login: z.string().min(1).max(100), password: z.string().min(1).max(1000) }),
  z.object({ samplePerson: Id }),
]);
export type SignIn = z.infer<typeof SignIn>;

export const Session = z.object({ person: Person.nullable() });
export type Session = z.infer<typeof Session>;

export const readSession = endpoint({ method: 'GET', path: '/session', answer: Session });
export const signIn = endpoint({ method: 'POST', path: '/session', body: SignIn, answer: Session });
export const signOut = endpoint({ method: 'DELETE', path: '/session', answer: Nothing });
