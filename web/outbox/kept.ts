import { AttachedFile } from '#contract/said';
import { NewSound } from '#contract/sound';
import { Sha256 } from '#contract/basics';
import { z } from 'zod';

/** A recording that is still in the browser's hands. The server will come to the same SHA-256. */
export const KeptSound = NewSound.extend({ blob: z.instanceof(Blob), sha256: Sha256 });
export type KeptSound = z.infer<typeof KeptSound>;

/** A file that is to go along with what is said. */
export const KeptFile = AttachedFile.extend({ blob: z.instanceof(Blob) });
export type KeptFile = z.infer<typeof KeptFile>;
