import { z } from 'zod';
import { Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';

/** UTF-16 units of a typed work, as HTML: some hundred pages. */
export const MOST_TYPED = 300_000;

export const Typed = z.object({ html: z.string(), changedAt: Instant.nullable() });
export type Typed = z.infer<typeof Typed>;

/** What the student has typed so far as their work, here or on another machine. */
export const readTyped = endpoint({ method: 'GET', path: '/assignments/:assignment/typed', answer: Typed });
export const keepTyped = endpoint({
  method: 'PUT',
  path: '/assignments/:assignment/typed',
  body: z.object({
    html: z.string().max(MOST_TYPED, 'This text is too long to be typed here. Hand it in as a file.'),
    /** What it was when the typing began; where it has changed since, in another window, nothing is kept. */
    over: Instant.nullable(),
  }),
  answer: Typed.pick({ changedAt: true }),
});
