import { Anchor } from '#contract/anchor';
import { Id, Instant } from '#contract/basics';
import { Kind } from '#contract/margin-key';
import { makeRemark, type Remark } from '#contract/remarks';
import { SaidWords } from '#contract/said';
import { z } from 'zod';
import { KeptFile } from '../../outbox/kept.ts';
import { call } from '../../session/api.ts';
import type { Undoable } from './change.ts';
import { withRemark } from './on-feedback.ts';
import type { PutAside } from './put-aside.ts';
import { KeptRecording, newSound, recordingOf } from './recorded.ts';

export const MakeRemark = z.object({
  type: z.literal('make remark'),
  remark: Id,
  author: z.object({ id: Id, name: z.string() }),
  anchor: Anchor,
  kind: Kind,
  words: SaidWords,
  recording: KeptRecording.nullable(),
  file: KeptFile.nullable(),
  madeAt: Instant,
});
export type MakeRemark = z.infer<typeof MakeRemark>;

export const makingRemark: Undoable<MakeRemark, PutAside> = {
  schema: MakeRemark,
  apply: (feedback, change) => withRemark(feedback, newRemark(change)),
  inverse: (_, { remark }) => ({ type: 'put aside', remark, aside: true }),
  async send(submission, { remark, anchor, kind, words, recording, file }) {
    const made = await call(makeRemark, {
      params: { submission, remark },
      body: {
        ...{ anchor, kind },
        said: {
          ...words,
          recording: recording && { ...recording, sound: newSound(recording.sound) },
          file: file && { name: file.name },
        },
      },
      files: [recording?.sound.blob, file?.blob].filter((blob) => blob !== undefined),
    });
    return (feedback) => withRemark(feedback, made);
  },
  touches: ({ remark, recording }) => [remark, ...(recording ? [recording.id] : [])],
};

const newRemark = ({ remark, author, anchor, kind, words, recording, file, madeAt }: MakeRemark): Remark => ({
  ...words,
  ...{ id: remark, author, kind, anchor, madeAt },
  recording: recording && recordingOf(recording, madeAt),
  file: file && { sha256: file.sha256, name: file.name, byteLength: file.byteLength },
  takenAt: null,
  dealtAt: null,
  settled: null,
  replies: [],
});
