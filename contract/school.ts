import { z } from 'zod';
import { Nothing, Person, Zone } from './basics.ts';
import { endpoint } from './endpoint.ts';

export const SchoolName = z.string().trim().min(1).max(200);

export const School = z.object({
  name: z.string(),
  /** In which its days are. */
  zone: Zone,
  /** Whom one may sign in as with one click; empty outside the sample school. */
  samplePeople: z.array(Person),
  /** Nobody is here yet: whoever starts the server has an address that opens it. */
  empty: z.boolean(),
  limits: z.object({ fileBytes: z.int() }),
});
export type School = z.infer<typeof School>;

export const readSchool = endpoint({ method: 'GET', path: '/school', answer: School });

/** The steward corrects what was said at set-up. */
export const changeSchool = endpoint({
  method: 'PATCH',
  path: '/school',
  body: z.object({ name: SchoolName, zone: Zone }),
  answer: Nothing,
});
