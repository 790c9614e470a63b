import { z } from 'zod';
import { Person } from './basics.ts';
import { endpoint } from './endpoint.ts';

export const School = z.object({
  name: z.string(),
  /** Whom one may sign in as with one click; empty outside the sample school. */
  samplePeople: z.array(Person),
  /** Nobody is here yet: whoever starts the server has an address that opens it. */
  empty: z.boolean(),
  limits: z.object({ fileBytes: z.int() }),
});
export type School = z.infer<typeof School>;

export const readSchool = endpoint({ method: 'GET', path: '/school', answer: School });
