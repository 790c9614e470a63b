import type { Queries } from '../server/db/database.ts';
import { isSampleSchool } from '../server/school/people.ts';

/** A sample school must not be taken for a real one: whoever finds its address could sign in with one click. */
export async function refuseSampleSchool(db: Queries): Promise<void> {
  if (!(await isSampleSchool(db))) return;
  throw new Error(
    'This data folder holds the sample school, in which anybody can sign in as anybody. Choose another folder with VIVID_DATA, or serve it with --sample.',
  );
}
