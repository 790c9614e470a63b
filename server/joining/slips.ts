import { z } from 'zod';
import type { Slip } from '../../contract/joining.ts';
import { selectOne, type Queries } from '../db/database.ts';
import { makeCode } from './codes.ts';

const Who = z.object({ name: z.string(), login: z.string() });

/** A new way in for one person, with all that is printed on it. Call in a transaction. */
export async function slipFor(tx: Queries, person: string, madeBy: string): Promise<Slip> {
  const who = (await selectOne(tx, Who, 'select name, login from people where id = $1', [person]))!;
  return { person, ...who, ...(await makeCode(tx, { opens: 'person', person }, madeBy)) };
}
