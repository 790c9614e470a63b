import type { DataRecord } from '../../contract/own-data.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { heldByNone } from '../media/media.ts';
import { MEDIA_HOLDERS } from '../purge.ts';
import { insertDataRecord, selectAbout } from './queries.ts';

/**
 * Erases a student with all that they handed in, said and got back, sounds and files included; nothing waits for a purge. Call in
 * a transaction.
 * @throws ProblemError for whoever teaches: what they said belongs to other people's works
 */
export async function erase(tx: Queries, person: string, name: string, by: string): Promise<DataRecord> {
  const about = await selectAbout(tx, person);
  if (!about) throw problems.notFound();
  if (about.name.trim() !== name.trim()) throw problems.otherName();
  const teaches = await tx.query(
    `select 1 as one from enrolments where person = $1 and role = 'teacher'
     union all select 1 from remarks r join submissions s on s.id = r.submission where r.author = $1 and s.student <> $1 union all select 1 from notes where author = $1`,
    [person],
  );
  if (teaches.length > 0) throw problems.erasesTeacher();
  const record = await insertDataRecord(tx, 'erased', person, by);
  const media = await tx.query(
    `select f.file as sha256 from submission_files f join submissions s on s.id = f.submission where s.student = $1
     union select f.file from submission_pictures f join submissions s on s.id = f.submission where s.student = $1
     union select r.file from remarks r join submissions s on s.id = r.submission where s.student = $1 and r.file is not null
     union select unnest(array[g.medium, g.original]) from recordings g where g.owner = $1 or g.id in (
       select r.recording from remarks r join submissions s on s.id = r.submission where s.student = $1
       union select y.recording from replies y join remarks r on r.id = y.remark join submissions s on s.id = r.submission
       where s.student = $1
       union select h.recording from greetings h where h.student = $1)`,
    [person],
  );
  const recordings = await tx.query(
    `select r.recording as id from remarks r join submissions s on s.id = r.submission
       where s.student = $1 and r.recording is not null
     union select y.recording from replies y join remarks r on r.id = y.remark join submissions s on s.id = r.submission
       where s.student = $1 and y.recording is not null
     union select recording from greetings where student = $1
     union select id from recordings where owner = $1`,
    [person],
  );
  for (const table of ['greetings', 'submissions']) await tx.query(`delete from ${table} where student = $1`, [person]);
  await tx.query('delete from listenings where person = $1', [person]);
  await tx.query('delete from recordings where id = any($1::uuid[])', [recordings.map(({ id }) => id)]);
  for (const { sha256 } of media)
    if (sha256)
      await tx.query(`delete from media m where m.sha256 = $1 and ${heldByNone('m.sha256', MEDIA_HOLDERS)}`, [sha256]);
  // What somebody else handed in too is theirs from now on.
  await tx.query(
    `update uploads u set owner = coalesce((
         select s.student from media m join submission_files f on f.file = m.sha256
         join submissions s on s.id = f.submission where m.upload = u.id limit 1), $2)
     where u.owner = $1 and exists (select from media m where m.upload = u.id)`,
    [person, by],
  );
  await tx.query('delete from people where id = $1', [person]);
  return record;
}
