import type { PlannedLine } from '#core/roster';
import type { Queries } from '../db/database.ts';
import { enrol } from '../school/people.ts';
import { addNew } from './add-new.ts';
import { insertInvitation } from './invitations.ts';

/**
 * Does what a plan says of somebody. Call in a transaction.
 * @param by who brings them in
 * @returns their id
 */
export async function bringInOne(
  tx: Queries,
  course: string,
  one: Exclude<PlannedLine, { fate: 'refuse' }>,
  by: string,
): Promise<string> {
  const person = one.fate === 'add' ? await addNew(tx, one, course) : one.person;
  if (one.fate === 'invite') await insertInvitation(tx, { course, person, role: 'student', name: one.name, by });
  else if (one.fate !== 'known') await enrol(tx, course, person, 'student');
  return person;
}

/** @returns the ids of those who are in the course now, or invited to it, and were not before */
export async function bringInAll(
  tx: Queries,
  course: string,
  lines: readonly PlannedLine[],
  by: string,
): Promise<string[]> {
  const added: string[] = [];
  for (const line of lines) {
    if (line.fate === 'refuse' || line.fate === 'known') continue;
    added.push(await bringInOne(tx, course, line, by));
  }
  return added;
}
