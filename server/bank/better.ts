import { authorise } from '../access/authorise.ts';
import { asTeacher } from '../access/visible.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { selectRemark } from '../remarks/queries.ts';
import { copyRecording } from '../recordings/copy.ts';
import { selectBanked, updateBanked, updateBankedRecording } from './queries.ts';
import { selectUse } from './uses.ts';

/**
 * Takes what a copy says back into the bank. Call in a transaction.
 * @param recording the id of the bank's new recording
 * @throws ProblemError where the remark is no copy of this one, or none that the person may read
 */
export async function takeBetter(
  tx: Queries,
  person: string,
  { banked, remark, recording }: { banked: string; remark: string; recording: string },
): Promise<void> {
  await authorise(tx, person, 'remark.bank', { remark });
  const use = await selectUse(tx, remark, banked);
  if (!use) throw problems.notFound();
  if (use.greeted) throw problems.greetsSomebody();
  const copy = (await selectRemark(tx, remark, asTeacher))!;
  const [before] = await selectBanked(tx, person, [banked]);
  const { text, link, reaction, suggestion } = copy;
  await updateBanked(tx, person, before!, { text, link, reaction, suggestion });
  if (!copy.recording) return updateBankedRecording(tx, banked, null);
  await copyRecording(tx, copy.recording.id, { id: recording, owner: person });
  await updateBankedRecording(tx, banked, recording);
}
