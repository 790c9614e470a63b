import { Id, Instant } from '#contract/basics';
import { reportHeard } from '#contract/recordings';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Lasting } from './change.ts';
import { changedRecording, withRecording } from './on-feedback.ts';

export const Hear = z.object({ type: z.literal('hear'), recording: Id, finished: z.boolean(), at: Instant });
export type Hear = z.infer<typeof Hear>;

export const hearing: Lasting<Hear> = {
  schema: Hear,
  apply: (feedback, { recording, finished, at }) =>
    changedRecording(feedback, recording, ({ heard }) => ({
      heard: { begunAt: heard?.begunAt ?? at, finishedAt: heard?.finishedAt ?? (finished ? at : null) },
    })),
  async send(_, { recording, finished }) {
    const heard = await call(reportHeard, { params: { recording }, body: { finished } });
    return (feedback) => withRecording(feedback, heard);
  },
  touches: ({ recording }) => [recording],
};
