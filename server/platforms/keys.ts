import { calculateJwkThumbprint, exportJWK, generateKeyPair, importJWK, type CryptoKey, type JWK } from 'jose';
import { z } from 'zod';
import { select, selectOne, type Queries } from '../db/database.ts';

const Jwk = z.record(z.string(), z.unknown());

/** What this server signs with; made when it is needed for the first time. */
export async function ownKey(db: Queries): Promise<{ kid: string; key: CryptoKey }> {
  const found = await selectNewest(db);
  if (found) return found;
  const { privateKey, publicKey } = await generateKeyPair('RS256', { extractable: true });
  const shown = await exportJWK(publicKey);
  const kid = await calculateJwkThumbprint(shown);
  await db.query('insert into platform_keys (kid, private_key, public_key) values ($1, $2, $3)', [
    ...[kid, JSON.stringify(await exportJWK(privateKey)), JSON.stringify({ ...shown, kid, alg: 'RS256', use: 'sig' })],
  ]);
  return (await selectNewest(db))!;
}

async function selectNewest(db: Queries): Promise<{ kid: string; key: CryptoKey } | undefined> {
  const row = await selectOne(
    db,
    z.object({ kid: z.string(), key: Jwk }),
    'select kid, private_key as key from platform_keys order by made_at, kid limit 1',
    [],
  );
  return row && { kid: row.kid, key: (await importJWK(row.key as JWK, 'RS256')) as CryptoKey };
}

/** What others check our signatures by (RFC 7517). */
export async function publicKeys(db: Queries): Promise<{ keys: unknown[] }> {
  await ownKey(db);
  const rows = await select(
    db,
    z.object({ key: Jwk }),
    'select public_key as key from platform_keys order by made_at',
    [],
  );
  return { keys: rows.map(({ key }) => key) };
}
