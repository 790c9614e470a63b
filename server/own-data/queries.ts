import { z } from 'zod';
import { Answers } from '../../contract/assignments.ts';
import { Id, Instant } from '../../contract/basics.ts';
import { DataRecord } from '../../contract/own-data.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

const About = z.object({
  name: z.string(),
  login: z.string(),
  mail: z.string().nullable(),
  number: z.string().nullable(),
});

export const selectAbout = (db: Queries, person: string): Promise<z.infer<typeof About> | undefined> =>
  selectOne(db, About, 'select name, login, mail, number from people where id = $1', [person]);

const Version = z.object({
  id: Id,
  course: z.string(),
  assignment: z.string(),
  version: z.int(),
  handedInAt: Instant,
  returnedAt: Instant.nullable(),
  withdrawnAt: Instant.nullable(),
  text: z.string(),
  files: z.array(z.object({ name: z.string(), sha256: z.string(), byteLength: z.int() })),
});
export type Version = z.infer<typeof Version>;

/** One version after another, so that not all texts are in memory at once. */
export const selectVersionIds = (db: Queries, person: string): Promise<{ id: string }[]> =>
  select(
    db,
    z.object({ id: Id }),
    `select s.id from submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where s.student = $1 and not c.second_marking order by s.handed_in_at, s.id`,
    [person],
  );

export const selectVersion = (db: Queries, submission: string): Promise<Version | undefined> =>
  selectOne(
    db,
    Version,
    `select s.id, c.title as course, a.title as assignment, s.version, s.handed_in_at as "handedInAt",
       s.returned_at as "returnedAt", s.withdrawn_at as "withdrawnAt", s.folio ->> 'text' as text,
       (select coalesce(jsonb_agg(jsonb_build_object('name', f.name, 'sha256', encode(f.file, 'hex'),
          'byteLength', m.byte_length) order by f.position), '[]')
        from submission_files f join media m on m.sha256 = f.file where f.submission = s.id) as files
     from submissions s join assignments a on a.id = s.assignment join courses c on c.id = a.course
     where s.id = $1`,
    [submission],
  );

const Draft = z.object({ assignment: z.string(), html: z.string().nullable(), answers: Answers.nullable() });

/** What was typed and perhaps never handed in. */
export const selectDrafts = (db: Queries, person: string): Promise<z.infer<typeof Draft>[]> =>
  select(
    db,
    Draft,
    `select a.title as assignment, d.html, null as answers from typed_drafts d join assignments a on a.id = d.assignment
     where d.student = $1
     union all
     select a.title, null, d.answers from answer_drafts d join assignments a on a.id = d.assignment where d.student = $1`,
    [person],
  );

const RECORD = `id, what, person, by_name as by, at, works, recordings`;

export const selectDataRecords = (db: Queries): Promise<DataRecord[]> =>
  select(db, DataRecord, `select ${RECORD} from data_records order by at desc, id`);

/** Keeps that it was done, with how much there was. Before an erasure, in its transaction. */
export async function insertDataRecord(
  tx: Queries,
  what: DataRecord['what'],
  person: string,
  by: string,
): Promise<DataRecord> {
  const record = await selectOne(
    tx,
    DataRecord,
    `insert into data_records (what, person, by_name, works, recordings)
     select $1, $2, (select name from people where id = $3),
       (select count(*) from submissions where student = $2), (select count(*) from recordings where owner = $2)
     returning ${RECORD}`,
    [what, person, by],
  );
  return record!;
}
