import { z } from 'zod';
import { Id } from './basics.ts';
import { address, endpoint } from './endpoint.ts';

/** Students have it at once, or each of them with their returned work. */
export const HandoutGiven = z.enum(['atOnce', 'withReturn']);

/** A file that an assignment hands out: something to start from, or a work to learn from. */
export const Handout = z.object({ id: Id, name: z.string(), byteLength: z.int(), given: HandoutGiven });
export type Handout = z.infer<typeof Handout>;

export const MOST_HANDOUTS = 20;

export const addHandout = endpoint({
  method: 'PUT',
  path: '/assignments/:assignment/handouts/:handout',
  body: z.object({ given: HandoutGiven }),
  upload: { files: 'one', largest: 'work' },
  answer: Handout,
});
export const changeHandout = endpoint({
  method: 'PATCH',
  path: '/handouts/:handout',
  body: z.object({ given: HandoutGiven, aside: z.boolean() }).partial(),
  answer: Handout,
});
export const handoutFile = address('/handouts/:handout/file');
