import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import type { StampPicture } from '../../contract/stamps.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

const StampRow = z.object({ id: Id, name: z.string(), file: z.instanceof(Buffer) });

const stampOfRow = ({ id, name, file }: z.infer<typeof StampRow>): StampPicture => ({
  id,
  name,
  sha256: file.toString('hex'),
});

export async function selectStamps(db: Queries, owner: string): Promise<StampPicture[]> {
  const rows = await select(
    db,
    StampRow,
    'select id, name, file from stamp_pictures where owner = $1 order by made_at',
    [owner],
  );
  return rows.map(stampOfRow);
}

export async function selectStamp(db: Queries, owner: string, id: string): Promise<StampPicture | undefined> {
  const row = await selectOne(db, StampRow, 'select id, name, file from stamp_pictures where owner = $1 and id = $2', [
    owner,
    id,
  ]);
  return row && stampOfRow(row);
}

export async function insertStamp(
  tx: Queries,
  stamp: { id: string; owner: string; name: string; file: Buffer },
): Promise<void> {
  await tx.query(
    'insert into stamp_pictures (id, owner, name, file) values ($1, $2, $3, $4) on conflict (id) do nothing',
    [stamp.id, stamp.owner, stamp.name, stamp.file],
  );
}

export async function deleteStamp(db: Queries, owner: string, id: string): Promise<void> {
  await db.query('delete from stamp_pictures where owner = $1 and id = $2', [owner, id]);
}
