import { randomUUID } from 'node:crypto';
import { isMail } from '#core/roster';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { Platform } from '../../contract/platforms.ts';
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

/** Somebody comes from a platform: who they are, where from, and as what. Call in a transaction. */
export async function arrive(tx: Queries, platform: Platform, launch: Launch): Promise<Arrived> {
  const person = await personFor(tx, platform, launch);
  const { context, course } = (await selectOne(
    tx,
    z.object({ context: Id, course: Id.nullable() }),
    `insert into platform_contexts (id, platform, context, title, members_address, items_address)
     values ($1, $2, $3, $4, $5, $6)
     on conflict (platform, context) do update set title = excluded.title,
       members_address = coalesce(excluded.members_address, platform_contexts.members_address),
       items_address = coalesce(excluded.items_address, platform_contexts.items_address)
     returning id as context, course`,
    [
      ...[randomUUID(), platform.id, launch.context.id, launch.context.title],
      ...[launch.membersAddress, launch.itemsAddress],
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

async function personFor(tx: Queries, platform: Platform, { subject, name, mail }: Launch): Promise<string> {
  // Two launches of one person at once make one of them.
  await tx.query('select from platforms where id = $1 for update', [platform.id]);
  const known = await selectOne(
    tx,
    z.object({ person: Id }),
    'select person from platform_people where platform = $1 and subject = $2',
    [platform.id, subject],
  );
  if (known) return known.person;
  const address = isMail(mail) ? mail : '';
  const same = address === '' ? undefined : await selectByMail(tx, address);
  if (same && !platform.trustsMail) throw problems.mailTaken();
  const person = same?.id ?? (await addNew(tx, { name, mail: address, number: '' }));
  await linkPerson(tx, platform.id, subject, person);
  await tx.query('update people set came_in_at = coalesce(came_in_at, now()) where id = $1', [person]);
  return person;
}

export const linkPerson = async (tx: Queries, platform: string, subject: string, person: string): Promise<void> =>
  void (await tx.query(
    `insert into platform_people (platform, subject, person) values ($1, $2, $3)
     on conflict (platform, subject) do update set person = excluded.person`,
    [platform, subject, person],
  ));
