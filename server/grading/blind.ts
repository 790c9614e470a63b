import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { GradeCell } from '../../contract/gradebook.ts';
import { blindTo, viewerIn } from '../access/visible.ts';
import { select, type Queries } from '../db/database.ts';
import { hiddenCell } from './cells.ts';

/** Works whose results a person does not see, because they mark them a second time. */
export async function selectBlind(db: Queries, person: string): Promise<ReadonlySet<string>> {
  const rows = await select(
    db,
    z.object({ id: Id }),
    `select distinct s.id from moderations d join moderated_works w on w.moderation = d.id join submissions o on o.id = w.work
     join submissions s on s.assignment = o.assignment and s.student = o.student
     where d.marker = $1 and ${blindTo(viewerIn('$1'))}`,
    [person],
  );
  return new Set(rows.map(({ id }) => id));
}

/** A cell as somebody sees it who must not know what was given in some works. */
export const withoutBlind = (cell: GradeCell | null | undefined, blind: ReadonlySet<string>): GradeCell | null =>
  cell?.submission && blind.has(cell.submission) ? hiddenCell(cell.flag) : (cell ?? null);
