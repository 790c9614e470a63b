import type { Queries } from './db/database.ts';
import { purgeBank } from './bank/queries.ts';
import { purgeCodes } from './joining/codes.ts';
import { MEDIA as OF_HANDOUTS, purgeHandouts } from './handouts/queries.ts';
import { purgeMails } from './mail/queries.ts';
import { purgeMedia } from './media/media.ts';
import { purgeNotes } from './notes/queries.ts';
import { MEDIA as OF_RECORDINGS, purgeRecordings } from './recordings/queries.ts';
import { MEDIA as OF_REMARKS, purgeOriginals, purgeRemarks } from './remarks/queries.ts';
import { purgeKnownBrowsers } from './sessions/known-browsers.ts';
import { MEDIA as OF_STAMPS } from './stamps/queries.ts';
import { MEDIA as OF_SUBMISSIONS, purgeWithdrawn } from './submissions/queries.ts';
import { purgeUploads } from './uploads/queries.ts';

/** Every column that holds a medium, as each subject names its own. */
export const MEDIA_HOLDERS = [...OF_RECORDINGS, ...OF_REMARKS, ...OF_STAMPS, ...OF_HANDOUTS, ...OF_SUBMISSIONS];

/** What was put aside more than 30 days ago goes, and then what only that had held. */
export async function purge(db: Queries): Promise<void> {
  await purgeRemarks(db);
  await purgeBank(db);
  await purgeNotes(db);
  await purgeHandouts(db);
  await purgeOriginals(db);
  await purgeWithdrawn(db);
  await purgeRecordings(db);
  await purgeMedia(db, MEDIA_HOLDERS);
  await purgeUploads(db);
  await purgeCodes(db);
  await purgeMails(db);
  await purgeKnownBrowsers(db);
}
