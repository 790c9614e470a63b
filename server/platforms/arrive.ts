import { randomUUID } from 'node:crypto';
import { isLinkedByMail, isMail } from '#core/roster';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { Platform } from '../../contract/platforms.ts';
import { STAFF } from '../access/visible.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { addNew } from '../roster/add-new.ts';
import { selectByMail } from '../roster/queries.ts';
import { enrol } from '../school/people.ts';
import type { Launch } from './claims.ts';

/** Who has come, and from which course of the platform. */
export interface Arrived {
  person: string;
  context: string;
  /** Which course it is here; null where nobody has said. */
  course: string | null;
}

/**
 * Who somebody of a platform is here. Call in a transaction.
 * @returns undefined where only they can say it: somebody here has their mail address, or they teach and may have an account
 */
export async function whoComes(tx: Queries, platform: Platform, launch: Launch): Promise<string | undefined> {
  // Two launches of one person at once make one of them.
  await tx.query('select from platforms where id = $1 for update', [platform.id]);
  const known = await selectLinkedTo(tx, platform.id, launch.subject);
  if (known) return known;
  const same = isMail(launch.mail) ? await selectByMail(tx, launch.mail) : undefined;
  if (launch.teaches) return undefined;
  if (!same) return makeNew(tx, platform, launch);
  if (!isLinkedByMail(platform.trustsMail, await standingOf(tx, same.id))) return undefined;
  await linkPerson(tx, platform.id, launch.subject, same.id);
  await markCameIn(tx, same.id);
  return same.id;
}

/** An account of their own, without an address that somebody here has. Call in a transaction. */
export async function makeNew(
  tx: Queries,
  platform: Platform,
  { subject, name, mail, context }: Launch,
): Promise<string> {
  const free = isMail(mail) && !(await selectByMail(tx, mail));
  const connected = await selectOne(
    tx,
    z.object({ course: Id.nullable() }),
    'select course from platform_contexts where platform = $1 and context = $2',
    [platform.id, context.id],
  );
  const person = await addNew(tx, { name, mail: free ? mail : '', number: '' }, connected?.course ?? null);
  await linkPerson(tx, platform.id, subject, person);
  await markCameIn(tx, person);
  return person;
}

/** Somebody who is signed in here says that they are the one of the platform. Call in a transaction. */
export async function linkOwn(tx: Queries, platform: Platform, { subject }: Launch, person: string): Promise<void> {
  await tx.query('select from platforms where id = $1 for update', [platform.id]);
  const known = await selectLinkedTo(tx, platform.id, subject);
  if (known !== undefined && known !== person) throw problems.alreadyLinked();
  await linkPerson(tx, platform.id, subject, person);
}

/** Whoever comes is in the course, as what they are there. Call in a transaction. */
export async function arrive(tx: Queries, platform: Platform, launch: Launch, person: string): Promise<Arrived> {
  const { context, course } = (await selectOne(
    tx,
    z.object({ context: Id, course: Id.nullable() }),
    `insert into platform_contexts (id, platform, context, title, members_address, items_address, scopes)
     values ($1, $2, $3, $4, $5, $6, $7)
     on conflict (platform, context) do update set title = excluded.title, scopes = excluded.scopes,
       members_address = coalesce(excluded.members_address, platform_contexts.members_address),
       items_address = coalesce(excluded.items_address, platform_contexts.items_address)
     returning id as context, course`,
    [
      ...[randomUUID(), platform.id, launch.context.id, launch.context.title],
      ...[launch.membersAddress, launch.itemsAddress, JSON.stringify(launch.scopes)],
    ],
  ))!;
  await tx.query(
    `insert into platform_roles (context, person, teaches) values ($1, $2, $3)
     on conflict (context, person) do update set teaches = excluded.teaches`,
    [context, person, launch.teaches],
  );
  // Whoever has left, says a teacher here, does not come back by a link.
  if (course && launch.learns && !launch.teaches)
    await tx.query(
      "insert into enrolments (course, person, role) values ($1, $2, 'student') on conflict (course, person) do nothing",
      [course, person],
    );
  if (course && launch.teaches) await enrol(tx, course, person, 'teacher');
  return { person, context, course };
}

/** Where an arrival leads to. */
export const placeOf = ({ course, context }: Arrived): string =>
  course ? `/courses/${course}` : `/launched/${context}`;

const selectLinkedTo = async (db: Queries, platform: string, subject: string): Promise<string | undefined> =>
  (
    await selectOne(
      db,
      z.object({ person: Id }),
      'select person from platform_people where platform = $1 and subject = $2',
      [platform, subject],
    )
  )?.person;

const standingOf = async (db: Queries, person: string): Promise<{ staff: boolean }> =>
  (await selectOne(db, z.object({ staff: z.boolean() }), `select ${STAFF} as staff from people p where p.id = $1`, [
    person,
  ]))!;

const markCameIn = (tx: Queries, person: string): Promise<unknown> =>
  tx.query('update people set came_in_at = coalesce(came_in_at, now()) where id = $1', [person]);

/** A link that is there stays as it is. */
export const linkPerson = async (tx: Queries, platform: string, subject: string, person: string): Promise<void> =>
  void (await tx.query(
    `insert into platform_people (platform, subject, person) values ($1, $2, $3) on conflict (platform, subject) do nothing`,
    [platform, subject, person],
  ));
