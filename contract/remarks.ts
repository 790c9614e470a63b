import { z } from 'zod';
import { Anchor } from './anchor.ts';
import { Id, Instant } from './basics.ts';
import { address, endpoint } from './endpoint.ts';
import { Ink } from './ink.ts';
import { Kind } from './margin-key.ts';
import { NewReply, Reply } from './replies.ts';
import { NewSaid, Said, SaidWords } from './said.ts';

/** Something said about a place of a work. */
export const Remark = Said.extend({
  id: Id,
  author: z.object({ id: Id, name: z.string() }),
  kind: Kind,
  anchor: Anchor,
  madeAt: Instant,
  /** When the student took the suggestion over. */
  takenAt: Instant.nullable(),
  /** When the student said that it is dealt with in their next version. */
  dealtAt: Instant.nullable(),
  replies: z.array(Reply),
  /** Nothing more is to be said about it, says one of the two sides; a new answer opens it again. */
  settled: z.object({ at: Instant, by: z.object({ id: Id, name: z.string() }) }).nullable(),
});
export type Remark = z.infer<typeof Remark>;

export const NewRemark = z.object({ said: NewSaid, anchor: Anchor, kind: Kind });
export type NewRemark = z.infer<typeof NewRemark>;

/** What is not named stays: nothing here has a default. */
export const RemarkChange = SaidWords.omit({ talk: true })
  .extend({ kind: Kind, anchor: Anchor, ink: Ink.nullable() })
  .partial();
export type RemarkChange = z.infer<typeof RemarkChange>;

/** Sending the same remark twice makes it once: the browser chooses its id. */
export const makeRemark = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/remarks/:remark',
  body: NewRemark,
  upload: { files: 'any', largest: 'recording' },
  answer: Remark,
});
export const changeRemark = endpoint({
  method: 'PATCH',
  path: '/remarks/:remark',
  body: RemarkChange.extend({
    /** What the person saw there before: where it says something else by now, nothing is changed. */
    was: RemarkChange.optional(),
  }),
  answer: Remark,
});
export const putRemarkAside = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/aside',
  body: z.object({ aside: z.boolean() }),
  answer: Remark,
});
/** The student makes a suggestion their own, or not any more. */
export const takeSuggestion = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/taken',
  body: z.object({ taken: z.boolean() }),
  answer: Remark,
});
/** The student has dealt with it in their next version, or not any more. */
export const dealWithRemark = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/dealt',
  body: z.object({ dealt: z.boolean() }),
  answer: Remark,
});
/** Says that nothing more is to be said about a remark, or that something is. */
export const settleRemark = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/settled',
  body: z.object({ settled: z.boolean() }),
  answer: Remark,
});
export const makeReply = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/replies/:reply',
  body: NewReply,
  upload: { files: 'perhaps', largest: 'recording' },
  answer: Remark,
});

/** A student asks about a criterion on which nothing was said: opens a thread with their words as its first. */
export const askAbout = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/questions/:remark',
  body: NewReply.extend({ criterion: Id, reply: Id }),
  upload: { files: 'perhaps', largest: 'recording' },
  answer: Remark,
});

export const remarkFile = address('/remarks/:remark/file/:sha256');
export const remarkStamp = address('/remarks/:remark/stamp/:sha256');
