import type { Anchor as CoreAnchor, ReattachStatus } from '#core/anchor';
import { z } from 'zod';
import { Anchor } from '../../contract/anchor.ts';
import { Id } from '../../contract/basics.ts';
import { EarlierRemark } from '../../contract/submissions.ts';
import { hasRemarks, shownRemark, type Reader } from '../access/visible.ts';
import { select, type Queries } from '../db/database.ts';
import { selectRemarks } from '../remarks/queries.ts';

/** Versions before this one, the oldest first, that were not withdrawn. */
const EARLIER = `submissions s join submissions o on o.assignment = s.assignment and o.student = s.student
  and o.version < s.version and o.withdrawn_at is null`;

const PendingRow = z.object({
  remark: Id,
  own: Id,
  anchor: Anchor,
  latest: Id.nullable(),
  latest_anchor: Anchor.nullable(),
});
export type Pending = z.infer<typeof PendingRow>;

/** Remarks on earlier versions that were not sought in this one yet, each with the newest version in which it has a place. */
export const selectPending = (db: Queries, submission: string): Promise<Pending[]> =>
  select(
    db,
    PendingRow,
    `select r.id as remark, o.id as own, r.anchor, l.submission as latest, l.anchor as latest_anchor
     from ${EARLIER} join remarks r on r.submission = o.id and r.put_aside_at is null
     left join lateral (
       select t.submission, t.anchor from reattachments t join submissions v on v.id = t.submission
       where t.remark = r.id and t.anchor is not null and v.version < s.version and v.withdrawn_at is null
       order by v.version desc limit 1) l on true
     where s.id = $1 and not exists (select from reattachments t where t.remark = r.id and t.submission = s.id)
     order by o.version, r.made_at`,
    [submission],
  );

export interface Found {
  remark: string;
  submission: string;
  status: ReattachStatus;
  anchor: CoreAnchor | null;
  confidence: number;
  /** The teacher who put it there by hand. */
  placedBy?: string;
}

/** Keeps where a remark belongs. What a teacher said stands; a search never overwrites it. */
export async function upsertReattachment(db: Queries, found: Found): Promise<void> {
  await db.query(
    `insert into reattachments (remark, submission, status, anchor, confidence, placed_by) values ($1, $2, $3, $4, $5, $6)
     on conflict (remark, submission) do update set status = excluded.status, anchor = excluded.anchor,
       confidence = excluded.confidence, placed_by = excluded.placed_by where excluded.placed_by is not null`,
    [
      found.remark,
      found.submission,
      found.status,
      found.anchor && JSON.stringify(found.anchor),
      found.confidence,
      found.placedBy ?? null,
    ],
  );
}

const EarlierRow = z.object({
  remark: Id,
  submission: Id,
  version: z.int(),
  status: EarlierRemark.shape.status,
  anchor: Anchor.nullable(),
  confidence: z.number(),
  placed: z.boolean(),
});

/** Remarks on earlier versions with their places in this one; the student's are those that were returned. */
export async function selectEarlier(db: Queries, submission: string, reader: Reader): Promise<EarlierRemark[]> {
  const rows = await select(
    db,
    EarlierRow,
    `select t.remark, o.id as submission, o.version, t.status, t.anchor, t.confidence, t.placed_by is not null as placed
     from ${EARLIER} join remarks r on r.submission = o.id and r.put_aside_at is null
     join reattachments t on t.remark = r.id and t.submission = s.id
     where s.id = $1 and ${shownRemark(reader)} and ($2 or ${hasRemarks('o')})
     order by o.version, r.made_at`,
    [submission, reader.teacher],
  );
  const versions = [...new Set(rows.map((row) => row.submission))];
  const remarks = (
    await Promise.all(versions.map((version) => selectRemarks(db, { submission: version }, reader)))
  ).flat();
  const byId = new Map(remarks.map((remark) => [remark.id, remark]));
  return rows.flatMap(({ remark, ...row }) => {
    const found = byId.get(remark);
    return found ? [{ remark: found, ...row }] : [];
  });
}
