import { z } from 'zod';
import { readUses, type Around } from '../../contract/bank.ts';
import { Id } from '../../contract/basics.ts';
import { blindTo, SHOWN_NAME, viewerIn } from '../access/visible.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

interface Use {
  remark: string;
  banked: string;
  person: string;
  around: Around;
  /** A greeting to the student was spliced in. */
  greeted?: boolean;
  /** ISO 8601; now where it is not given. */
  usedAt?: string;
}

export async function insertUse(
  tx: Queries,
  { remark, banked, person, around, greeted = false, usedAt }: Use,
): Promise<void> {
  const { before, passage, after } = around;
  await tx.query(
    `insert into bank_uses (remark, banked, person, used_at, greeted, before, passage, after)
     values ($1, $2, $3, coalesce($4::timestamptz, now()), $5, $6, $7, $8) on conflict (remark) do nothing`,
    [remark, banked, person, usedAt ?? null, greeted, before, passage, after],
  );
}

/** Whether a remark is a copy of a banked one, and whether a student is greeted in it. */
export const selectUse = (db: Queries, remark: string, banked: string): Promise<{ greeted: boolean } | undefined> =>
  selectOne(db, z.object({ greeted: z.boolean() }), 'select greeted from bank_uses where remark = $1 and banked = $2', [
    remark,
    banked,
  ]);

/** Uses of one are counted as those of another. */
export async function moveUses(tx: Queries, from: string, into: string): Promise<void> {
  await tx.query('update bank_uses set banked = $2 where banked = $1', [from, into]);
}

/** A banked remark that was used on a work which the person does not teach any more tells nothing of it. */
export const selectUses = (db: Queries, banked: string, person: string): Promise<z.infer<typeof readUses.answer>> =>
  select(
    db,
    readUses.answer.element,
    `select u.remark, s.id as submission, ${SHOWN_NAME} as student, a.title as assignment, u.used_at as "usedAt",
       (select min(l.finished_at) from listenings l where l.recording = r.recording and l.person = s.student) as "heardAt",
       (select count(*)::int from replies y where y.remark = r.id) as answers,
       (r.content - 'tags' - 'name') <> (b.content - 'tags' - 'name') or g.medium is distinct from o.medium
         or t.text is distinct from w.text as edited
     from bank_uses u join banked_remarks b on b.id = u.banked
     join remarks r on r.id = u.remark and r.put_aside_at is null
     join submissions s on s.id = r.submission join assignments a on a.id = s.assignment join people p on p.id = s.student
     left join recordings g on g.id = r.recording left join recordings o on o.id = b.recording
     left join transcripts t on t.recording = g.id left join transcripts w on w.recording = o.id
     where u.banked = $1 and not ${blindTo(viewerIn('$2'))} and exists (select from enrolments e where e.course = a.course and e.person = $2 and e.role = 'teacher')
     order by u.used_at desc, u.remark limit 200`,
    [banked, person],
  );

/** Passages that a person used their remarks on, the newest first. */
export const selectHistory = (
  db: Queries,
  person: string,
  limit: number,
): Promise<{ remark: string; before: string; passage: string; after: string }[]> =>
  select(
    db,
    z.object({ remark: Id, before: z.string(), passage: z.string(), after: z.string() }),
    `select banked as remark, before, passage, after from bank_uses where person = $1 and passage <> ''
     order by used_at desc limit $2`,
    [person, limit],
  );
