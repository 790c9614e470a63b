import { z } from 'zod';
import type { Slip } from '../../contract/joining.ts';
import { Id } from '../../contract/basics.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { makeCode } from './codes.ts';

const Who = z.object({ name: z.string(), login: z.string(), mail: z.string() });

/** A new way in for one person, with all that is printed on it. Call in a transaction. */
export async function slipFor(tx: Queries, person: string, madeBy: string): Promise<Slip> {
  const who = (await selectOne(tx, Who, "select name, login, coalesce(mail, '') as mail from people where id = $1", [
    person,
  ]))!;
  return { person, ...who, ...(await makeCode(tx, { opens: 'person', person }, madeBy)) };
}

/**
 * Whoever has a slip has the account. So a teacher makes one only for people of the course who are nowhere that this teacher does not
 * teach, and for no other teacher who is in; a steward for everybody in it but another steward.
 * @returns their ids in the order of their names; or why not
 */
export async function selectResettable(
  tx: Queries,
  { course, people, teacher }: { course: string; people: readonly string[]; teacher: string },
): Promise<string[] | 'unknown' | 'elsewhere'> {
  const rows = await select(
    tx,
    z.object({ id: Id, allowed: z.boolean() }),
    `select p.id, not p.steward and (
         exists (select from people me where me.id = $3 and me.steward)
         or not exists (select from enrolments o where o.person = p.id and (o.role = 'teacher' and p.came_in_at is not null
           or not exists (select from enrolments t where t.course = o.course and t.person = $3 and t.role = 'teacher')))) as allowed
     from enrolments e join people p on p.id = e.person
     where e.course = $1 and p.id in (select value::uuid from jsonb_array_elements_text($2::jsonb)) order by p.name, p.id`,
    [course, JSON.stringify(people), teacher],
  );
  if (rows.length < new Set(people).size) return 'unknown';
  return rows.every(({ allowed }) => allowed) ? rows.map(({ id }) => id) : 'elsewhere';
}
