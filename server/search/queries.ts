import { searchable, searchTerms, termPattern } from '#core/transcript';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { Remark } from '../../contract/remarks.ts';
import { READABLE_REMARK } from '../access/visible.ts';
import { select, type Queries } from '../db/database.ts';
import { selectRemarks } from '../remarks/queries.ts';

const HitRow = z.object({
  remark: Id,
  submission: Id,
  student: z.string(),
  assignment: z.string(),
  /** The student reads their own. */
  theirs: z.boolean(),
});

interface Hit extends Pick<z.infer<typeof HitRow>, 'submission' | 'student' | 'assignment'> {
  remark: Remark;
}

interface Search {
  words: string;
  own: boolean;
  limit: number;
}

const ALL_TEXT = `concat_ws(' ', r.folded, t.folded,
  (select string_agg(x.folded, ' ') from translations x where x.recording = r.recording))`;

/** Remarks that have every word of the search somewhere, among those that the person may read. */
export async function selectHits(db: Queries, person: string, { words, own, limit }: Search): Promise<Hit[]> {
  const terms = searchTerms(words);
  if (terms.length === 0) return [];
  const rows = await select(
    db,
    HitRow,
    `select remark, submission, student, assignment, theirs from (
       select r.id as remark, s.id as submission, p.name as student, a.title as assignment, s.student = $1 as theirs,
         r.made_at, ${ALL_TEXT} as everything
       from remarks r join submissions s on s.id = r.submission join assignments a on a.id = s.assignment
       join people p on p.id = s.student left join transcripts t on t.recording = r.recording
       where ${READABLE_REMARK} and (r.author = $1 or not $4::boolean)) found
     where not exists (
       select from jsonb_to_recordset($2::jsonb) as term (pattern text, whole boolean)
       where found.everything collate any_language !~ ('(^|[^[:alnum:]])' || pattern || case when whole then '($|[^[:alnum:]])' else '' end))
     order by position($3::text in found.everything) > 0 desc, made_at desc, remark limit $5`,
    [
      person,
      JSON.stringify(terms.map(({ text, whole }) => ({ pattern: termPattern(text), whole }))),
      searchable(words.trim()),
      own,
      limit,
    ],
  );
  const remarks = new Map<string, Remark>();
  for (const theirs of [false, true]) {
    const ids = rows.filter((row) => row.theirs === theirs).map(({ remark }) => remark);
    if (ids.length === 0) continue;
    for (const remark of await selectRemarks(db, { remarks: ids }, { teacher: !theirs, person }))
      remarks.set(remark.id, remark);
  }
  return rows.flatMap(({ remark, submission, student, assignment }) => {
    const found = remarks.get(remark);
    return found ? [{ submission, student, assignment, remark: found }] : [];
  });
}
