import type { Queries } from '../db/database.ts';
import { freeLogin } from '../joining/join.ts';
import { addPerson } from '../school/people.ts';
import { updateMember } from './queries.ts';

/**
 * Somebody who will choose a password when they come in.
 * @param madeIn the course that they are entered in
 */
export async function addNew(
  tx: Queries,
  who: { name: string; mail: string; number: string },
  madeIn: string | null,
): Promise<string> {
  const login = await freeLogin(tx, who.name);
  const id = await addPerson(tx, { name: who.name, login, passwordHash: null, madeIn });
  await updateMember(tx, id, who);
  return id;
}
