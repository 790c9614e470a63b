import { PEAK_FULL_SCALE } from '#core/audio';
import { z } from 'zod';
import { Duration, Sha256 } from './basics.ts';

export const SoundType = z.enum(['audio/webm', 'audio/ogg', 'audio/mp4', 'audio/wav']);

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

/** What the browser tells about a recording that it sends. */
export const NewSound = z.object({ duration: Duration, peaks: Peaks, microphone: Microphone });
export type NewSound = z.infer<typeof NewSound>;

export const Sound = z.object({ sha256: Sha256, duration: Duration, peaks: Peaks });
export type Sound = z.infer<typeof Sound>;
