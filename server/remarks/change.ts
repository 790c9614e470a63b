import { SaidWords } from '../../contract/said.ts';
import type { RemarkChange } from '../../contract/remarks.ts';
import { holdForChange } from '../access/work-state.ts';
import { asTeacher } from '../access/visible.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { isEmpty, refuseIfAstray } from './make.ts';
import { selectRemark, selectRemarkPlace, updateWords } from './queries.ts';

/** Changes what is given and leaves the rest. Call in a transaction. */
export async function changeWords(tx: Queries, id: string, change: RemarkChange): Promise<void> {
  await holdForChange(tx, 'remark', id);
  const place = await selectRemarkPlace(tx, id);
  if (!place) throw problems.notFound();
  const { submission, author } = place;
  const before = (await selectRemark(tx, id, asTeacher))!;
  const words = SaidWords.parse({ ...before, ...change });
  const checked = { anchor: change.anchor ?? before.anchor, kind: change.kind ?? before.kind, words };
  // What it had already may stay, e.g. a kind that has left the margin key since.
  if (change.kind !== undefined || change.anchor || change.stamp || change.criterion || change.suggestion !== undefined)
    await refuseIfAstray(tx, submission, author, checked);
  if (!before.recording && !before.file && isEmpty(words)) throw problems.remarkEmpty();
  await updateWords(tx, id, checked);
}
