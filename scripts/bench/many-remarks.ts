import { NO_WORDS } from '../../contract/said.ts';
import { openDatabase } from '../../server/db/open.ts';
import { fromRoot } from '../../server/root.ts';
import { fileURLToPath } from 'node:url';

const MANY = 10_000;
/** Words that are rare or in nearly every remark, alone and together. */
export const SEARCHES = ['heron', 'the t', 'the ', 'word17 word18', 'the word2999'];

/** Written remarks of 60 words each on the works of the sample school, whose teachers then have ten thousand of them. */
export async function addManyRemarks(dataFolder: string): Promise<void> {
  const cacheFolder = fileURLToPath(fromRoot('.cache'));
  const db = await openDatabase({ databaseUrl: undefined, dataFolder, cacheFolder });
  await db.query(
    `insert into remarks (id, submission, author, kind, anchor, content, made_at)
     select gen_random_uuid(), work.id, work.teacher, 'next', '{"type": "whole"}',
       $1::jsonb || jsonb_build_object('text', 'the tide ' || case when n % 200 = 0 then 'heron ' else '' end || (
         select string_agg(case when w % 6 = 0 then 'the' else 'word' || (n * 31 + w * w * 7) % 3000 end, ' ')
         from generate_series(1, 57) w)),
       now() - n * interval '1 minute'
     from generate_series(1, $2::int) n join lateral (
       select s.id, (select e.person from enrolments e where e.course = a.course and e.role = 'teacher' order by e.person limit 1) as teacher
       from submissions s join assignments a on a.id = s.assignment where s.returned_at is null order by s.id
       offset n % (select count(*) from submissions where returned_at is null) limit 1) work on true`,
    [JSON.stringify(NO_WORDS), MANY],
  );
  await db.close();
}
