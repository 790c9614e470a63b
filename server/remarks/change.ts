import { isDeepStrictEqual } from 'node:util';
import { SaidWords } from '../../contract/said.ts';
import type { Remark, RemarkChange } from '../../contract/remarks.ts';
import { holdForChange } from '../access/work-state.ts';
import { asTeacher } from '../access/visible.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { isEmpty, refuseIfAstray } from './make.ts';
import { selectRemark, selectRemarkPlace, updateWords } from './queries.ts';

/**
 * Changes what is given and leaves the rest. Call in a transaction.
 * @param was what the person saw there before
 * @throws ProblemError where that is not there any more
 */
export async function changeWords(tx: Queries, id: string, change: RemarkChange, was?: RemarkChange): Promise<void> {
  await holdForChange(tx, 'remark', id);
  const place = await selectRemarkPlace(tx, id);
  if (!place) throw problems.notFound();
  const { submission, author } = place;
  const before = (await selectRemark(tx, id, asTeacher))!;
  if (was) refuseIfChanged(before, change, was);
  const words = SaidWords.parse({ ...before, ...change });
  const checked = { anchor: change.anchor ?? before.anchor, kind: change.kind ?? before.kind, words };
  // What it had already may stay, e.g. a kind that has left the margin key since.
  if (change.kind !== undefined || change.anchor || change.stamp || change.criterion || change.suggestion !== undefined)
    await refuseIfAstray(tx, submission, author, checked);
  if (!before.recording && !before.file && isEmpty(words)) throw problems.remarkEmpty();
  await updateWords(tx, id, checked);
}

function refuseIfChanged(before: Remark, change: RemarkChange, was: RemarkChange): void {
  const names = Object.keys(change) as (keyof RemarkChange)[];
  const changed = names.filter(
    (name) =>
      name in was && !isDeepStrictEqual(before[name], was[name]) && !isDeepStrictEqual(before[name], change[name]),
  );
  if (changed.length === 0) return;
  throw problems.changedMeanwhile(Object.fromEntries(changed.map((name) => [name, before[name]])));
}
