import type { Database } from '../db/database.ts';
import { returnWork } from '../feedback/return.ts';
import { selectDue } from './queries.ts';

/** Returns what was to go out by now, each work on its own. */
export async function returnPlanned(db: Database, stopping?: AbortSignal): Promise<void> {
  for (const submission of await selectDue(db)) {
    if (stopping?.aborted) return;
    await db.transaction((tx) => returnWork(tx, submission, null));
  }
}
