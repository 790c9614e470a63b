import { fileURLToPath } from 'node:url';
import { NO_WORDS } from '../../contract/said.ts';
import { openDatabase } from '../../server/db/open.ts';
import { fromRoot } from '../../server/root.ts';

export const CLASS = 30;
const ASSIGNMENTS = 70;
const REMARKS = 8;
export const MANY_TITLE = 'Bench 1';

/** Assignments in which a whole class has handed in; in the first, each work is scored and has remarks. */
export async function addManyWorks(dataFolder: string): Promise<void> {
  const cacheFolder = fileURLToPath(fromRoot('.cache'));
  const db = await openDatabase({ databaseUrl: undefined, dataFolder, cacheFolder });
  await db.query(
    `insert into assignments (id, course, title, brief, due_at)
     select gen_random_uuid(), c.id, 'Bench ' || n, '', now() from courses c, generate_series(1, $1::int) n
     where c.title = 'Reading the Shore'`,
    [ASSIGNMENTS],
  );
  await db.query(
    `insert into submissions (id, assignment, student, version, folio, handed_in_at)
     select gen_random_uuid(), a.id, e.person, 1, (select folio from submissions order by length(folio::text) limit 1),
       now() - interval '1 minute' * row_number() over ()
     from assignments a join enrolments e on e.course = a.course and e.role = 'student' where a.title like 'Bench %'`,
  );
  await db.script(`
    insert into criteria (id, assignment, position, title, description)
      select gen_random_uuid(), a.id, n, 'Criterion ' || n, '' from assignments a, generate_series(0, 2) n
      where a.title = '${MANY_TITLE}';
    insert into levels (id, criterion, position, title, description, points)
      select gen_random_uuid(), k.id, n, 'Level ' || n, '', n from criteria k join assignments a on a.id = k.assignment,
        generate_series(0, 3) n where a.title = '${MANY_TITLE}';
    insert into scores (submission, criterion, level, chosen_by)
      select s.id, k.id, l.id, (select person from enrolments where role = 'teacher' limit 1)
      from submissions s join assignments a on a.id = s.assignment and a.title = '${MANY_TITLE}'
      join criteria k on k.assignment = a.id join levels l on l.criterion = k.id and l.position = 2`);
  await db.query(
    `insert into remarks (id, submission, author, kind, anchor, content)
     select gen_random_uuid(), s.id, (select person from enrolments where role = 'teacher' limit 1), 'next',
       '{"type": "whole"}', $1::jsonb || jsonb_build_object('text', 'Remark ' || n)
     from submissions s join assignments a on a.id = s.assignment and a.title = $2, generate_series(1, $3::int) n`,
    [JSON.stringify(NO_WORDS), MANY_TITLE, REMARKS],
  );
  await db.close();
}
