import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { GradeCell } from '../../contract/gradebook.ts';
import { blindTo } from '../access/visible.ts';
import { select, type Queries } from '../db/database.ts';
import { hiddenCell } from './cells.ts';

/** Works whose results a person does not see, because they mark them a second time. */
export async function selectBlind(db: Queries, person: string): Promise<ReadonlySet<string>> {
  const rows = await select(
    db,
    z.object({ id: Id }),
    `select s.id from submissions s join moderated_works m on m.work = s.id where ${blindTo('$1')}`,
    [person],
  );
  return new Set(rows.map(({ id }) => id));
}

/** A cell as somebody sees it who must not know what was given in some works. */
export const withoutBlind = (cell: GradeCell | null | undefined, blind: ReadonlySet<string>): GradeCell | null =>
  cell?.submission && blind.has(cell.submission) ? hiddenCell(cell.flag) : (cell ?? null);
