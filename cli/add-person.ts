import { text } from 'node:stream/consumers';
import { NewPassword } from '../contract/session.ts';
import { DatabaseError, UNIQUE_VIOLATION } from '../server/db/database.ts';
import { openDatabase } from '../server/db/open.ts';
import { addPerson, enrol, findOrAddCourse, nameSchool } from '../server/school/people.ts';
import { newPasswordHash } from '../server/sessions/passwords.ts';
import { readSettings } from '../server/settings.ts';
import { refuseSampleSchool } from './refuse-sample.ts';

export interface AddPersonOptions {
  name: string;
  login: string;
  teaches?: string;
  learns?: string;
}

export async function addPersonCommand({ name, login, teaches, learns }: AddPersonOptions): Promise<{ id: string }> {
  const password = (await text(process.stdin)).replace(/\r?\n$/, '');
  const refused = NewPassword.safeParse(password).error;
  if (refused) throw new Error(`${refused.issues[0]!.message}. Give it on standard input.`);
  const passwordHash = await newPasswordHash(password, [name, login]);
  const db = await openDatabase(readSettings(process.env));
  try {
    return await db.transaction(async (tx) => {
      await refuseSampleSchool(tx);
      await nameSchool(tx, 'Vivid Margin');
      const learnsIn = learns ? await findOrAddCourse(tx, learns) : null;
      const id = await addPerson(tx, { name, login, passwordHash, madeIn: learnsIn });
      if (teaches) await enrol(tx, await findOrAddCourse(tx, teaches), id, 'teacher');
      if (learnsIn) await enrol(tx, learnsIn, id, 'student');
      return { id };
    });
  } catch (error) {
    if (error instanceof DatabaseError && error.code === UNIQUE_VIOLATION)
      throw new Error(`The login “${login}” is taken.`, { cause: error });
    throw error;
  } finally {
    await db.close();
  }
}
