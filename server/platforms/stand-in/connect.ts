import { z } from 'zod';
import { Id } from '../../../contract/basics.ts';
import { select, selectOne, type Database } from '../../db/database.ts';
import { linkPerson } from '../arrive.ts';
import { insertPlatform } from '../queries.ts';
import type { StandIn, StandInCourse } from './stand-in.ts';

/** In the simulated platform only: somebody who is there and not here yet. */
const NEWCOMER = { id: 'newcomer', name: 'Pirita Saarinen', mail: 'pirita.saarinen@fennick.example', teaches: false };

/** A course as the simulated platform has it, with somebody in it whom nobody here knows. */
export async function standInCourse(db: Database, title: string): Promise<StandInCourse> {
  const people = await select(
    db,
    z.object({ id: Id, name: z.string(), mail: z.string(), teaches: z.boolean() }),
    `select p.id, p.name, coalesce(p.mail, '') as mail, e.role = 'teacher' as teaches
     from enrolments e join courses c on c.id = e.course and c.title = $1 and not c.second_marking join people p on p.id = e.person
     where e.role in ('teacher', 'student') order by e.role = 'teacher' desc, p.name, p.id`,
    [title],
  );
  return { id: 'tideline', title, people: [...people.filter(({ name }) => name !== NEWCOMER.name), NEWCOMER] };
}

/** Tells the sample school of it. It has other addresses after each start; who is who there stays. */
export async function connectStandIn(db: Database, { platform }: StandIn, course: StandInCourse): Promise<void> {
  await db.transaction(async (tx) => {
    const known = await selectOne(tx, z.object({ id: Id }), 'select id from platforms where stand_in limit 1', []);
    if (known) {
      const { issuer, authAddress, tokenAddress, keysAddress } = platform;
      await tx.query(
        'update platforms set issuer = $2, auth_address = $3, token_address = $4, keys_address = $5 where id = $1',
        [known.id, issuer, authAddress, tokenAddress, keysAddress],
      );
      await tx.query(`update platform_contexts set members_address = $2, items_address = $3 where platform = $1`, [
        known.id,
        `${issuer}/courses/${course.id}/members`,
        `${issuer}/courses/${course.id}/items`,
      ]);
      // What it was told it has forgotten.
      await tx.query(
        'delete from platform_items where context in (select id from platform_contexts where platform = $1)',
        [known.id],
      );
      await tx.query(
        'delete from platform_grades where context in (select id from platform_contexts where platform = $1)',
        [known.id],
      );
    }
    const { id } = known ?? (await insertPlatform(tx, platform, true));
    for (const person of course.people)
      if (Id.safeParse(person.id).success) await linkPerson(tx, id, person.id, person.id);
  });
}
