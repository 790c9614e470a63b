import { Id, Instant } from '#contract/basics';
import { askAbout, makeReply, type Remark } from '#contract/remarks';
import { NO_WORDS } from '#contract/said';
import type { Feedback } from '#contract/submissions';
import type { Reply } from '#contract/replies';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Lasting } from './change.ts';
import { changedRemark, remarkIn, withRemark } from './on-feedback.ts';
import { KeptRecording, newSound, recordingOf } from './recorded.ts';

/** What is answered to a remark, by voice or in writing. It has been said, so it stays. */
export const Answer = z.object({
  type: z.literal('answer'),
  remark: Id,
  /** About which it is asked, where nothing was said about it: the remark is made with it. */
  criterion: Id.optional(),
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
    changedRemark(opened(feedback, change), change.remark, ({ replies }) => ({
      replies: [...replies.filter(({ id }) => id !== change.reply), newReply(change)],
    })),
  async send(submission, { remark, criterion, reply, text, recording }) {
    const files = recording ? [recording.sound.blob] : [];
    const body = { text, recording: recording && { ...recording, sound: newSound(recording.sound) } };
    const answered = criterion
      ? await call(askAbout, { params: { submission, remark }, body: { ...body, criterion, reply }, files })
      : await call(makeReply, { params: { remark, reply }, body, files });
    return (feedback) => withRemark(feedback, answered);
  },
  touches: ({ remark, recording }) => [remark, ...(recording ? [recording.id] : [])],
};

function opened(feedback: Feedback, { remark, criterion, author, at }: Answer): Feedback {
  if (criterion === undefined || remarkIn(feedback, remark)) return feedback;
  const opening: Remark = {
    ...{ ...NO_WORDS, criterion, id: remark, author, kind: 'question', anchor: { type: 'whole' }, madeAt: at },
    ...{ recording: null, file: null, takenAt: null, dealtAt: null, settled: null, replies: [] },
  };
  return withRemark(feedback, opening);
}

const newReply = ({ reply, author, at, text, recording }: Answer): Reply => ({
  ...{ id: reply, author, at, text },
  recording: recording && recordingOf(recording, at),
});
