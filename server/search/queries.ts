import { searchable, searchTerms, type SearchTerm } from '#core/transcript';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { Remark } from '../../contract/remarks.ts';
import { READABLE_REMARK, SHOWN_NAME } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';
import { selectRemarks } from '../remarks/queries.ts';

const HitRow = z.object({
  remark: Id,
  submission: Id,
  student: z.string(),
  assignment: z.string(),
  /** The student reads their own. */
  theirs: z.boolean(),
});
type HitRow = z.infer<typeof HitRow>;

interface Hit extends Pick<HitRow, 'submission' | 'student' | 'assignment'> {
  remark: Remark;
}

interface Search {
  words: string;
  own: boolean;
  limit: number;
}

/** So many remarks are looked at one by one; where more of them match, the newest are looked through until there are enough. */
const FEW = 300;

/** Remarks that have every word of the search somewhere, among those that the person may read. */
export async function selectHits(db: Queries, person: string, search: Search): Promise<Hit[]> {
  const terms = searchTerms(search.words);
  if (terms.length === 0) return [];
  const rows = await selectNewest(db, person, await readQueries(db, terms, searchable(search.words)), search);
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

/** What is asked for as the database has it: every word somewhere, and all of them in this order. */
interface Asked {
  words: string;
  inOrder: string;
}

async function readQueries(db: Queries, terms: readonly SearchTerm[], text: string): Promise<Asked> {
  const row = await selectOne(
    db,
    z.object({ words: z.string(), inOrder: z.string() }),
    `select string_agg('(' || word_query(text, whole)::text || ')', ' & ')::tsquery::text as words,
       word_query($2, $3)::text as "inOrder"
     from jsonb_to_recordset($1::jsonb) as term (text text, whole boolean)`,
    [JSON.stringify(terms), text, terms.at(-1)!.whole],
  );
  return row!;
}

const HITS = `select r.id as remark, s.id as submission, ${SHOWN_NAME} as student, a.title as assignment,
    s.student = $1 as theirs, r.made_at
  from remark_words w join remarks r on r.id = w.remark join submissions s on s.id = r.submission
  join assignments a on a.id = s.assignment join people p on p.id = s.student
  where ${READABLE_REMARK} and (r.author = $1 or not $3::boolean)`;

async function selectNewest(
  db: Queries,
  person: string,
  { words, inOrder }: Asked,
  { own, limit }: Omit<Search, 'words'>,
): Promise<HitRow[]> {
  const some = await db.query(`select remark from remark_words where words @@ $1::tsquery limit ${FEW + 1}`, [words]);
  if (some.length === 0) return [];
  if (some.length <= FEW)
    return select(
      db,
      HitRow,
      `${HITS} and w.remark = any ($2::uuid[]) order by w.words @@ $5::tsquery desc, made_at desc, remark limit $4`,
      [person, `{${some.map(({ remark }) => remark).join()}}`, own, limit, inOrder],
    );
  const first = inOrder === words ? [] : await selectNewest(db, person, { words: inOrder, inOrder }, { own, limit });
  if (first.length === limit) return first;
  // "is true" keeps the database from collecting and sorting all that match before it takes the newest.
  const newest = await select(
    db,
    HitRow,
    `(select hit.* from enrolments taught, lateral (
        ${HITS} and w.course = taught.course and (w.words @@ $2::tsquery) is true
        order by w.made_at desc, w.remark limit $4) hit
      where taught.person = $1 and taught.role = 'teacher')
     union (${HITS} and s.student = $1 and w.words @@ $2::tsquery)
     order by made_at desc, remark limit $4`,
    [person, words, own, limit],
  );
  const known = new Set(first.map(({ remark }) => remark));
  return [...first, ...newest.filter(({ remark }) => !known.has(remark))].slice(0, limit);
}
