import { Id } from '#contract/basics';
import { keepOriginal } from '#contract/recordings';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Lasting } from './change.ts';

/** The recording as it was spoken, behind a rendition that was sent first. */
export const KeepOriginal = z.object({
  type: z.literal('keep original'),
  recording: Id,
  blob: z.instanceof(Blob),
});
export type KeepOriginal = z.infer<typeof KeepOriginal>;

export const keepingOriginal: Lasting<KeepOriginal> = {
  schema: KeepOriginal,
  apply: (feedback) => feedback,
  async send(_, { recording, blob }) {
    await call(keepOriginal, { params: { recording }, files: [blob] });
    return (feedback) => feedback;
  },
  touches: ({ recording }) => [recording],
};
