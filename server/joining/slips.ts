import { z } from 'zod';
import type { Slip } from '../../contract/joining.ts';
import { Id } from '../../contract/basics.ts';
import { allows } from '../access/authorise.ts';
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
 * Whoever has a slip has the account, so `person.giveSlip` says for whom one may be made.
 * @returns their ids in the order of their names; or why not
 */
export async function selectResettable(
  tx: Queries,
  { course, people, teacher }: { course: string; people: readonly string[]; teacher: string },
): Promise<string[] | 'unknown' | 'elsewhere'> {
  const rows = await select(
    tx,
    z.object({ id: Id }),
    `select p.id from enrolments e join people p on p.id = e.person
     where e.course = $1 and p.id = any($2::uuid[]) order by p.name, p.id`,
    [course, people],
  );
  if (rows.length < new Set(people).size) return 'unknown';
  for (const { id } of rows) if (!(await allows(tx, teacher, 'person.giveSlip', { person: id }))) return 'elsewhere';
  return rows.map(({ id }) => id);
}
