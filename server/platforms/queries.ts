import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { NewPlatform, type Platform } from '../../contract/platforms.ts';
import { insertCourse } from '../courses/queries.ts';
import { DatabaseError, select, selectOne, UNIQUE_VIOLATION, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { selectPlatform } from './sign-in.ts';

export async function insertPlatform(
  db: Queries,
  platform: z.input<typeof NewPlatform>,
  standIn = false,
): Promise<Platform> {
  const id = randomUUID();
  const { name, issuer, clientId, authAddress, tokenAddress, keysAddress, trustsMail, deployment } = platform;
  try {
    await db.query(
      `insert into platforms (id, name, issuer, client_id, auth_address, token_address, keys_address, trusts_mail, stand_in, deployment)
       values ($1, $2, $3, $4, $5, $6, $7, $8, $9, nullif($10, ''))`,
      [id, name, issuer, clientId, authAddress, tokenAddress, keysAddress, trustsMail, standIn, deployment ?? ''],
    );
  } catch (error) {
    if (error instanceof DatabaseError && error.code === UNIQUE_VIOLATION) throw problems.platformKnown();
    throw error;
  }
  return selectPlatform(db, id);
}

/** @returns false where there is none */
export async function deletePlatform(db: Queries, platform: string): Promise<boolean> {
  return (await db.query('delete from platforms where id = $1 returning 1 as one', [platform])).length > 0;
}

const Launched = z.object({
  title: z.string(),
  platform: z.string(),
  course: Id.nullable(),
  teaches: z.boolean(),
});

/** A course of a platform, for whoever has come from it. */
export const selectLaunched = (
  db: Queries,
  context: string,
  person: string,
): Promise<z.infer<typeof Launched> | undefined> =>
  selectOne(
    db,
    Launched,
    `select c.title, p.name as platform, c.course, r.teaches from platform_contexts c join platforms p on p.id = c.platform
     join platform_roles r on r.context = c.id and r.person = $2 where c.id = $1`,
    [context, person],
  );

/** Everybody who has come from there comes in, as what they are there. Call in a transaction. */
export async function connect(tx: Queries, context: string, course: string | null, person: string): Promise<string> {
  const { title } = (await selectOne(
    tx,
    z.object({ title: z.string() }),
    'select title from platform_contexts where id = $1 for update',
    [context],
  ))!;
  const id = course ?? (await insertCourse(tx, title, person)).id;
  const others = await select(
    tx,
    z.object({ id: Id }),
    'select id from platform_contexts where course = $1 and id <> $2',
    [id, context],
  );
  if (others.length > 0) throw problems.connectedElsewhere();
  await tx.query('update platform_contexts set course = $2 where id = $1', [context, id]);
  await tx.query(
    `insert into enrolments (course, person, role)
     select $2, person, case when teaches then 'teacher' else 'student' end from platform_roles where context = $1
     on conflict (course, person) do nothing`,
    [context, id],
  );
  return id;
}
