import { z } from 'zod';
import { Id, Instant } from './basics.ts';
import { endpoint } from './endpoint.ts';

/** A message to somebody of the school, without what it says. */
export const SentMail = z.object({
  id: Id,
  address: z.string(),
  subject: z.string(),
  madeAt: Instant,
  sentAt: Instant.nullable(),
  /** When it is tried next; null once it went out or nobody tries any more. */
  tryAt: Instant.nullable(),
  /** Why it did not go out when it was tried last. */
  refused: z.string().nullable(),
});
export type SentMail = z.infer<typeof SentMail>;

/** For the school's steward: what went out by mail, and what did not. */
export const readMails = endpoint({
  method: 'GET',
  path: '/school/mails',
  answer: z.object({
    mails: z.array(SentMail),
    /** Where there is no mail server: the messages themselves, as they would have gone out; the newest first. */
    standIn: z.array(z.string()).nullable(),
  }),
});
