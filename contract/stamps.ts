import { z } from 'zod';
import { Id, Nothing, Sha256 } from './basics.ts';
import { address, endpoint } from './endpoint.ts';

/** The drawings that every teacher has. */
export const STAMP_DRAWINGS = ['wave', 'shell', 'lamp', 'eye', 'sprout', 'knot', 'spark', 'compass'] as const;
export type StampDrawing = (typeof STAMP_DRAWINGS)[number];

/** In heights of a line of text; where a stamp lies on a page, its region says how large it is. */
const Size = z.number().min(1).max(8);

export const Stamp = z.union([
  z.object({ drawing: z.enum(STAMP_DRAWINGS), size: Size }),
  z.object({ picture: Sha256, size: Size }),
]);
export type Stamp = z.infer<typeof Stamp>;

/** A picture of a teacher's own. */
export const StampPicture = z.object({ id: Id, name: z.string(), sha256: Sha256 });
export type StampPicture = z.infer<typeof StampPicture>;

export const readStamps = endpoint({ method: 'GET', path: '/stamps', answer: z.array(StampPicture) });
export const addStamp = endpoint({
  method: 'PUT',
  path: '/stamps/:stamp',
  upload: { files: 'one', largest: 'picture' },
  answer: StampPicture,
});
export const removeStamp = endpoint({ method: 'DELETE', path: '/stamps/:stamp', answer: Nothing });

export const stampPicture = address('/stamps/:stamp/picture/:sha256');
