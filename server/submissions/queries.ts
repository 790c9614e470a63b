import type { Anchor } from '#core/anchor';
import { isLate } from '#core/workflow';
import { z } from 'zod';
import { AssignmentSummary } from '../../contract/assignments.ts';
import { Instant, Sha256 } from '../../contract/basics.ts';
import { Folio, Leaf } from '../../contract/folio.ts';
import { Receipt, Work } from '../../contract/submissions.ts';
import { SUMMARY_JSON } from '../assignments/queries.ts';
import { dueOf } from '../assignments/marking.ts';
import { selectMarginKey } from '../margin-key/queries.ts';
import { NAMELESS, SHOWN_ID, SHOWN_NAME, shownAt } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

const WorkRow = Work.omit({ late: true, marginKey: true, folio: true }).extend({
  assignment: AssignmentSummary,
  exactly: Instant,
  due: Instant.nullable(),
});

/** All of a work but its folio. */
export async function selectWork(
  db: Queries,
  submission: string,
  teacher: boolean,
): Promise<Omit<Work, 'folio'> | undefined> {
  const hidden = `($2 and ${NAMELESS})`;
  const at = (version: string): string =>
    `case when $2 then ${shownAt(`${version}.handed_in_at`)} else ${version}.handed_in_at end`;
  const row = await selectOne(
    db,
    WorkRow,
    `select s.id, s.version, s.handed_in_at as exactly, ${at('s')} as "handedInAt", c.id as course, a.budget, ${SUMMARY_JSON} as assignment,
       ${dueOf('s.student')} as due, ${hidden} as nameless,
       jsonb_build_object('id', case when $2 then ${SHOWN_ID} else p.id end,
         'name', case when $2 then ${SHOWN_NAME} else p.name end) as student,
       (select jsonb_agg(jsonb_build_object('id', v.id, 'version', v.version, 'handedInAt', ${at('v')},
            'returnedAt', v.returned_at) order by v.version desc)
        from submissions v where v.assignment = s.assignment and v.student = s.student and v.withdrawn_at is null) as versions,
       (select coalesce(jsonb_agg(jsonb_build_object('name', case when ${hidden} then 'File ' || f.position + 1 else f.name end,
            'mediaType', m.media_type) order by f.position), '[]')
        from submission_files f join media m on m.sha256 = f.file where f.submission = s.id) as files
     from submissions s join people p on p.id = s.student
     join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where s.id = $1`,
    [submission, teacher],
  );
  if (!row) return undefined;
  const { due, exactly, ...work } = row;
  return { ...work, marginKey: await selectMarginKey(db, submission), late: isLate(exactly, due) };
}

export async function selectReceipt(db: Queries, submission: string): Promise<Receipt | undefined> {
  const row = await selectOne(
    db,
    Receipt.omit({ late: true }),
    `select s.id as submission, p.name as student, c.title as course, a.title as assignment, s.version,
       s.handed_in_at as "handedInAt", ${dueOf('s.student')} as "dueAt",
       (select coalesce(jsonb_agg(jsonb_build_object('name', f.name, 'byteLength', m.byte_length,
            'sha256', encode(f.file, 'hex')) order by f.position), '[]')
        from submission_files f join media m on m.sha256 = f.file where f.submission = s.id) as files
     from submissions s join people p on p.id = s.student
     join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where s.id = $1`,
    [submission],
  );
  return row && { ...row, late: isLate(row.handedInAt, row.dueAt) };
}

export async function selectFolio(db: Queries, submission: string): Promise<z.infer<typeof Folio> | undefined> {
  const row = await selectOne(db, z.object({ folio: Folio }), 'select folio from submissions where id = $1', [
    submission,
  ]);
  return row?.folio;
}

/** As JSON. Names of files often say whose they are. */
export async function selectFolioText(db: Queries, submission: string, nameless: boolean): Promise<string | undefined> {
  const row = await selectOne(
    db,
    z.object({ folio: z.string() }),
    `select ${nameless ? WITHOUT_FILE_NAMES : 'folio'}::text as folio from submissions where id = $1`,
    [submission],
  );
  return row?.folio;
}

const WITHOUT_FILE_NAMES = `jsonb_set(folio, '{files}', (
  select coalesce(jsonb_agg(file || jsonb_build_object('name', 'File ' || number) order by number), '[]')
  from jsonb_array_elements(folio -> 'files') with ordinality as t (file, number)))`;

/** So much of a folio as tells whether an anchor holds in it; other leaves are missing. */
export async function selectWhatHolds(
  db: Queries,
  submission: string,
  anchor: Anchor,
): Promise<Pick<z.infer<typeof Folio>, 'text' | 'leaves'> | undefined> {
  const row = await selectOne(db, WhatHolds, `select ${whatHolds(anchor)} from submissions where id = $1`, [
    ...[submission, ...('leaf' in anchor ? [anchor.leaf] : [])],
  ]);
  if (!row) return undefined;
  const leaves: z.infer<typeof Leaf>[] = [];
  if ('leaf' in anchor) row.leaves.forEach((leaf) => (leaves[anchor.leaf] = leaf));
  else leaves.push(...row.leaves);
  return { text: row.text, leaves };
}

const WhatHolds = z.object({ text: z.string(), leaves: z.array(Leaf) });

function whatHolds(anchor: Anchor): string {
  if (anchor.type === 'passage') return "text, '[]'::jsonb as leaves";
  if (anchor.type === 'answer')
    return `'' as text, jsonb_path_query_array(folio, '$.leaves[*] ? (@.kind == "answer")') as leaves`;
  if ('leaf' in anchor)
    return `'' as text, case when folio #> array['leaves', $2::int::text] is null then '[]' else jsonb_build_array(folio #> array['leaves', $2::int::text]) end as leaves`;
  return "'' as text, '[]'::jsonb as leaves";
}

/** @returns false where a teacher has opened it in the meantime */
export async function updateWithdrawn(db: Queries, submission: string, withdrawn: boolean): Promise<boolean> {
  const rows = await db.query(
    `update submissions set withdrawn_at = case when $2 then coalesce(withdrawn_at, now()) end
     where id = $1 and opened_at is null returning 1 as one`,
    [submission, withdrawn],
  );
  return rows.length > 0;
}

/** What was withdrawn can be brought back for 30 days; then it goes. */
export async function purgeWithdrawn(db: Queries): Promise<void> {
  await db.query("delete from submissions where withdrawn_at < now() - interval '30 days'");
}

type Table = 'submission_files' | 'submission_pictures';

/** The SHA-256 of a file that was handed in, or of a picture that was found in one. */
export async function selectFile(
  db: Queries,
  table: Table,
  submission: string,
  position: number,
): Promise<WorkFile | undefined> {
  return selectOne(
    db,
    WorkFile,
    `select f.file, ${table === 'submission_files' ? 'f.format' : "split_part(m.media_type, '/', 2)"} as format, ${NAMELESS} as nameless
     from ${table} f join media m on m.sha256 = f.file join submissions s on s.id = f.submission
     join assignments a on a.id = s.assignment where f.submission = $1 and f.position = $2`,
    [submission, position],
  );
}

const WorkFile = z.object({
  file: z.instanceof(Buffer),
  format: z.string(),
  /** Teachers do not see yet whose it is. */
  nameless: z.boolean(),
});
type WorkFile = z.infer<typeof WorkFile>;

/** The SHA-256 of each of them, in order. */
export async function selectHashes(db: Queries, table: Table, submission: string): Promise<string[]> {
  const rows = await select(
    db,
    z.object({ sha256: Sha256 }),
    `select encode(file, 'hex') as sha256 from ${table} where submission = $1 order by position`,
    [submission],
  );
  return rows.map(({ sha256 }) => sha256);
}

export const MEDIA = ['submission_files.file', 'submission_pictures.file'];
