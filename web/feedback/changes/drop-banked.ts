import { Anchor } from '#contract/anchor';
import { dropBanked, Drop } from '#contract/bank';
import { Id, Instant } from '#contract/basics';
import { Kind } from '#contract/margin-key';
import { Recording } from '#contract/recordings';
import type { Remark } from '#contract/remarks';
import { SaidWords } from '#contract/said';
import { Transcript } from '#contract/transcripts';
import { z } from 'zod';
import { KeptSound } from '../../outbox/kept.ts';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { withRemark } from './on-feedback.ts';
import type { PutAside } from './put-aside.ts';
import { newSound, soundOf } from './recorded.ts';

/** A copy of a banked remark on a work. */
export const DropBanked = z.object({
  type: z.literal('drop banked'),
  remark: Id,
  author: z.object({ id: Id, name: z.string() }),
  banked: Id,
  anchor: Anchor,
  kind: Kind,
  words: SaidWords,
  around: Drop.shape.around,
  /** The copy of its recording, as it will be. */
  recording: Recording.nullable(),
  /** Its sound with a greeting in it. */
  greeted: z.object({ sound: KeptSound, transcript: Transcript.nullable() }).nullable(),
  madeAt: Instant,
});
export type DropBanked = z.infer<typeof DropBanked>;

export const droppingBanked: Undoable<DropBanked, PutAside> = {
  schema: DropBanked,
  apply: (feedback, change) => withRemark(feedback, copyOf(change)),
  inverse: (_, { remark }) => ({ type: 'put aside', remark, aside: true }),
  async send(submission, { remark, banked, anchor, kind, words, around, recording, greeted }) {
    const made = await call(dropBanked, {
      params: { submission, remark },
      body: {
        ...{ banked, anchor, kind, around, criterion: words.criterion },
        recording: recording?.id ?? crypto.randomUUID(),
        greeted: greeted && { ...greeted, sound: newSound(greeted.sound) },
      },
      files: greeted ? [greeted.sound.blob] : [],
    });
    return (feedback) => withRemark(feedback, made);
  },
  touches: ({ remark, recording }) => [remark, ...(recording ? [recording.id] : [])],
};

const copyOf = ({ remark, author, anchor, kind, words, recording, greeted, madeAt }: DropBanked): Remark => ({
  ...words,
  ...{ id: remark, author, kind, anchor, madeAt, file: null, takenAt: null, dealtAt: null, settled: null, replies: [] },
  recording:
    recording && greeted
      ? { ...recording, sound: soundOf(greeted.sound), transcript: greeted.transcript, translations: [] }
      : recording,
});
