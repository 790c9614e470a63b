import type { Queries } from '../db/database.ts';
import { freeLogin } from '../joining/join.ts';
import { addPerson } from '../school/people.ts';
import { updateMember } from './queries.ts';

/** Somebody who will choose a password when they come in. */
export async function addNew(tx: Queries, who: { name: string; mail: string; number: string }): Promise<string> {
  const id = await addPerson(tx, { name: who.name, login: await freeLogin(tx, who.name), passwordHash: null });
  await updateMember(tx, id, who);
  return id;
}
