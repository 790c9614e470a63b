import { z } from 'zod';
import { endpoint } from './endpoint.ts';

/** How often a desk says that somebody is at it, in seconds. */
export const PRESENCE_SECONDS = 10;

/** Says that one is at the desk of a work; answers who else is, by name. */
export const beHere = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/here',
  answer: z.object({ others: z.array(z.string()) }),
});
