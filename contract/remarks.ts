import type { Transcript as CoreTranscript } from '#core/transcript';
import { z } from 'zod';
import { Anchor } from './anchor.ts';
import { Id, Instant, LanguageTag } from './basics.ts';
import { endpoint } from './endpoint.ts';
import { NewSound, Sound } from './sound.ts';

/** What a remark is for. */
export const Kind = z.enum(['strength', 'question', 'repair', 'next']);
export type Kind = z.infer<typeof Kind>;

export const Transcript = z.object({
  language: LanguageTag,
  text: z.string().max(20_000),
  words: z.array(z.object({ word: z.string(), start: z.number().min(0), end: z.number().min(0) })),
  source: z.enum(['machine', 'person', 'bank']),
}) satisfies z.ZodType<CoreTranscript>;

export const Reply = z.object({
  id: Id,
  author: z.object({ id: Id, name: z.string() }),
  at: Instant,
  text: z.string(),
  sound: Sound.nullable(),
});
export type Reply = z.infer<typeof Reply>;

export const Remark = z.object({
  id: Id,
  author: z.object({ id: Id, name: z.string() }),
  kind: Kind,
  anchor: Anchor,
  sound: Sound,
  transcript: Transcript.nullable(),
  madeAt: Instant,
  /** When the student first began to listen, and first had heard it to the end. */
  heard: z.object({ begunAt: Instant, finishedAt: Instant.nullable() }).nullable(),
  replies: z.array(Reply),
});
export type Remark = z.infer<typeof Remark>;

export const NewRemark = z.object({ anchor: Anchor, kind: Kind, sound: NewSound });
export type NewRemark = z.infer<typeof NewRemark>;

export const NewReply = z.object({ text: z.string().trim().max(20_000), sound: NewSound.nullable() });
export type NewReply = z.infer<typeof NewReply>;

/** Sending the same remark twice makes it once: the browser chooses its id. */
export const makeRemark = endpoint({
  method: 'PUT',
  path: '/submissions/:submission/remarks/:remark',
  body: NewRemark,
  file: 'required',
  answer: Remark,
});
export const changeRemark = endpoint({
  method: 'PATCH',
  path: '/remarks/:remark',
  body: z.object({ kind: Kind }),
  answer: Remark,
});
export const putRemarkAside = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/aside',
  body: z.object({ aside: z.boolean() }),
  answer: Remark,
});
export const mendTranscript = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/transcript',
  body: Transcript.pick({ language: true, text: true }),
  answer: Remark,
});
export const reportHeard = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/heard',
  body: z.object({ finished: z.boolean() }),
  answer: Remark,
});
export const makeReply = endpoint({
  method: 'PUT',
  path: '/remarks/:remark/replies/:reply',
  body: NewReply,
  file: 'optional',
  answer: Remark,
});

/** Sounds are fetched by the browser's own player, so they have addresses instead of endpoints. */
export const remarkSoundPath = (remark: string, sha256: string): string => `/api/remarks/${remark}/sound/${sha256}`;
export const replySoundPath = (reply: string, sha256: string): string => `/api/replies/${reply}/sound/${sha256}`;
