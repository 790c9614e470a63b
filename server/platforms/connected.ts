import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { selectOne, type Queries } from '../db/database.ts';

const Connected = z.object({
  context: Id,
  platform: Id,
  name: z.string(),
  title: z.string(),
  membersAddress: z.string().nullable(),
  itemsAddress: z.string().nullable(),
  /** What its launches allow. */
  scopes: z.array(z.string()),
});
export type Connected = z.infer<typeof Connected>;

/** The course of a platform that a course here is. */
export const selectConnected = (db: Queries, course: string): Promise<Connected | undefined> =>
  selectOne(
    db,
    Connected,
    `select c.id as context, c.platform, p.name, c.title, c.members_address as "membersAddress",
       c.items_address as "itemsAddress", c.scopes
     from platform_contexts c join platforms p on p.id = c.platform where c.course = $1 order by c.title, c.id limit 1`,
    [course],
  );
