import { z } from 'zod';
import { select, selectOne, type Queries } from '../db/database.ts';
import { Launch } from './claims.ts';
import { hashOf, secret } from './sign-in.ts';

/*
 * Somebody has come from a platform and is to say whether they have an account here. What the platform said of them waits for that;
 * the browser that came holds the key to it.
 */

const MINUTES = 10;
export const ARRIVAL_COOKIE = 'vivid_arrival';

export interface Waiting {
  platform: string;
  launch: Launch;
}
const Row = z.object({ platform: z.string(), launch: z.unknown() });

/** @returns the secret for the browser's cookie */
export async function keepArrival(tx: Queries, { platform, launch }: Waiting): Promise<string> {
  const key = secret();
  await tx.query('delete from platform_arrivals where expires_at < now()');
  await tx.query(
    `insert into platform_arrivals (secret_hash, platform, launch, expires_at)
     values ($1, $2, $3, now() + make_interval(mins => $4))`,
    [hashOf(key), platform, JSON.stringify(launch), MINUTES],
  );
  return key;
}

export const readArrivalOf = async (db: Queries, key: string | undefined): Promise<Waiting | undefined> =>
  waiting(
    await selectOne(
      db,
      Row,
      'select platform, launch from platform_arrivals where secret_hash = $1 and expires_at > now()',
      [hashOf(key ?? '')],
    ),
  );

/** It is answered once. */
export const takeArrival = async (tx: Queries, key: string | undefined): Promise<Waiting | undefined> => {
  const [row] = await select(
    tx,
    Row,
    'delete from platform_arrivals where secret_hash = $1 and expires_at > now() returning platform, launch',
    [hashOf(key ?? '')],
  );
  return waiting(row);
};

const waiting = (row: z.infer<typeof Row> | undefined): Waiting | undefined =>
  row && { platform: row.platform, launch: row.launch as Launch };
