import type { Database } from '../db/database.ts';
import { MailRefused, type Mailer } from './mailer.ts';
import { claimMail, markRefused, markSent } from './queries.ts';

/** Sends all that waits, one after another; what is refused holds up nothing else. */
export async function sendMails(db: Database, mailer: Mailer, stopping?: AbortSignal): Promise<void> {
  for (let mail = await claimMail(db); mail && !stopping?.aborted; mail = await claimMail(db)) {
    try {
      await mailer.send({ to: mail.address, subject: mail.subject, text: mail.body });
    } catch (error) {
      await markRefused(db, mail, (error as Error).message, error instanceof MailRefused);
      continue;
    }
    await markSent(db, mail.id);
  }
}
