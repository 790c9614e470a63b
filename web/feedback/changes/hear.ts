import { isHeard, joinedPlayed } from '#core/audio';
import { Id, Instant } from '#contract/basics';
import { reportHeard } from '#contract/recordings';
import { Stretch } from '#contract/sound';
import { z } from 'zod';
import { call } from '../../session/api.ts';
import type { Lasting } from './change.ts';
import { changedRecording, withRecording } from './on-feedback.ts';

/** Seconds: longer than any recording. */
const ALL = 1_000_000;

const About = z.object({ type: z.literal('hear'), recording: Id, at: Instant });

/** Earlier versions of the app knew only whether all of it was heard. */
const Before = About.extend({ finished: z.boolean() }).transform(({ finished, ...about }) => ({
  ...about,
  played: finished ? [{ start: 0, end: ALL }] : [],
}));

export const Hear = z.union([About.extend({ played: z.array(Stretch) }), Before]);
export type Hear = z.infer<typeof Hear>;

export const hearing: Lasting<Hear> = {
  schema: Hear,
  apply: (feedback, { recording, played, at }) =>
    changedRecording(feedback, recording, ({ heard, sound }) => {
      const all = joinedPlayed([...(heard?.played ?? []), ...played], sound.duration);
      const finishedAt = heard?.finishedAt ?? (isHeard(all, sound.duration) ? at : null);
      return { heard: { begunAt: heard?.begunAt ?? at, finishedAt, played: all } };
    }),
  async send(_, { recording, played }) {
    const heard = await call(reportHeard, { params: { recording }, body: { played } });
    return (feedback) => withRecording(feedback, heard);
  },
  touches: ({ recording }) => [recording],
};
