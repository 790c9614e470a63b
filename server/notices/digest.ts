import { hourIn, isQuiet, newsSentence } from '#core/workflow';
import type { Database } from '../db/database.ts';
import { queueMail } from '../mail/queries.ts';
import { claimDigest, selectDue, selectNews } from './queries.ts';

const NOBODY = '00000000-0000-0000-0000-000000000000';

/**
 * Tells by mail what is new, once a day at the most and not in the hours in which somebody wants to be left alone. What it says is
 * where to look, never a grade or a word of a work.
 * @param address of this school, for the link
 */
export async function queueDigests(
  db: Database,
  address: string,
  now = new Date(),
  stopping?: AbortSignal,
): Promise<void> {
  let after = NOBODY;
  for (let due = await selectDue(db, after); due.length > 0; due = await selectDue(db, after)) {
    for (const { person, mail, since, settings } of due) {
      if (stopping?.aborted) return;
      after = person;
      if (isQuiet(hourIn(now, settings.zone), settings.quiet)) continue;
      const news = await selectNews(db, person, since);
      if (news.length === 0) continue;
      await db.transaction(async (tx) => {
        if (!(await claimDigest(tx, person))) return;
        const body = [
          ...news.map(newsSentence),
          '',
          `Open it: ${address}`,
          '',
          `How you are told: ${address}/notices`,
          '',
        ];
        await queueMail(tx, { person, address: mail, subject: 'News for you', body: body.join('\n') });
      });
    }
  }
}
