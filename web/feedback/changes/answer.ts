import { Id, Instant } from '#contract/basics';
import { makeReply } from '#contract/remarks';
import type { Reply } from '#contract/replies';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Lasting } from './change.ts';
import { changedRemark, withRemark } from './on-feedback.ts';
import { KeptRecording, newSound, recordingOf } from './recorded.ts';

/** What is answered to a remark, by voice or in writing. It has been said, so it stays. */
export const Answer = z.object({
  type: z.literal('answer'),
  remark: Id,
  reply: Id,
  author: z.object({ id: Id, name: z.string() }),
  text: z.string(),
  recording: KeptRecording.nullable(),
  at: Instant,
});
export type Answer = z.infer<typeof Answer>;

export const answering: Lasting<Answer> = {
  schema: Answer,
  apply: (feedback, change) =>
    changedRemark(feedback, change.remark, ({ replies }) => ({
      replies: [...replies.filter(({ id }) => id !== change.reply), newReply(change)],
    })),
  async send(_, { remark, reply, text, recording }) {
    const answered = await call(makeReply, {
      params: { remark, reply },
      body: { text, recording: recording && { ...recording, sound: newSound(recording.sound) } },
      files: recording ? [recording.sound.blob] : [],
    });
    return (feedback) => withRemark(feedback, answered);
  },
  touches: ({ remark, recording }) => [remark, ...(recording ? [recording.id] : [])],
};

const newReply = ({ reply, author, at, text, recording }: Answer): Reply => ({
  ...{ id: reply, author, at, text },
  recording: recording && recordingOf(recording, at),
});
