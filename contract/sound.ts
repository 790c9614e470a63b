import { PEAK_FULL_SCALE, type SoundEdit as CoreSoundEdit } from '#core/audio';
import { z } from 'zod';
import { Duration, Sha256 } from './basics.ts';

export const SoundType = z.enum(['audio/webm', 'audio/ogg', 'audio/mp4', 'audio/wav', 'video/webm', 'video/mp4']);

const Peaks = z.array(z.int().min(0).max(PEAK_FULL_SCALE)).min(1).max(600);

/** Where a recording came from. The practice microphone says which of its sentences it spoke. */
export const Microphone = z.union([
  z.object({ type: z.literal('device') }),
  z.object({
    type: z.literal('practice'),
    sentence: z.int().min(0),
    /** Seconds into the recording at which the sentence begins. */
    from: z.number().min(0),
  }),
]);
export type Microphone = z.infer<typeof Microphone>;

/** Whether a recording has a picture too, and of what. */
export const Picture = z.enum(['camera', 'screen']).nullable();

/** A part of a recording, in seconds from its start. */
export const Stretch = z.object({ start: z.number().min(0), end: z.number().min(0) });

/** Which stretches of a recording are heard, in seconds from its start and in their order, and whether it is levelled. */
export const SoundEdit = z.object({
  kept: z.array(Stretch).min(1).max(200).readonly(),
  levelled: z.boolean(),
}) satisfies z.ZodType<CoreSoundEdit>;
export type SoundEdit = z.infer<typeof SoundEdit>;

/** What the browser tells about a recording that it sends. */
export const NewSound = z.object({
  duration: Duration,
  peaks: Peaks,
  microphone: Microphone,
  picture: Picture.default(null),
});
export type NewSound = z.infer<typeof NewSound>;

export const Sound = z.object({ sha256: Sha256, duration: Duration, peaks: Peaks, picture: Picture });
export type Sound = z.infer<typeof Sound>;
