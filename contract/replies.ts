import { z } from 'zod';
import { Id, Instant } from './basics.ts';
import { NewRecording, Recording } from './recordings.ts';

export const Reply = z.object({
  id: Id,
  author: z.object({ id: Id, name: z.string() }),
  at: Instant,
  text: z.string(),
  recording: Recording.nullable(),
});
export type Reply = z.infer<typeof Reply>;

export const NewReply = z.object({ text: z.string().trim().max(20_000), recording: NewRecording.nullable() });
export type NewReply = z.infer<typeof NewReply>;
