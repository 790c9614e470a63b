import { invitation } from '#core/roster';
import type { Request } from 'express';
import type { Slip } from '../../contract/joining.ts';
import type { Queries } from '../db/database.ts';
import { queueMail } from '../mail/queries.ts';
import { selectSchoolName } from '../school/people.ts';
import type { Settings } from '../settings.ts';

/** Under which address whoever asks has come, or the one that the school has set. */
export const addressOf = ({ address }: Pick<Settings, 'address'>, request: Request): string =>
  address ?? `${request.protocol}://${request.get('Host') ?? ''}`;

/** Sends somebody their way into a course. Call in a transaction. @returns false where they have no address */
export async function inviteByMail(tx: Queries, slip: Slip, course: string | null, address: string): Promise<boolean> {
  if (slip.mail === '') return false;
  const { subject, body } = invitation({
    ...{ name: slip.name, login: slip.login, until: slip.expiresAt, course },
    school: (await selectSchoolName(tx)) ?? '',
    address: new URL(`/join/${slip.code}`, address).href,
  });
  await queueMail(tx, { person: slip.person, address: slip.mail, subject, body });
  return true;
}
