import { StampPicture } from '../../contract/stamps.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

const COLUMNS = `id, name, encode(file, 'hex') as sha256`;

export const MEDIA = ['stamp_pictures.file'];

export const selectStamps = (db: Queries, owner: string): Promise<StampPicture[]> =>
  select(db, StampPicture, `select ${COLUMNS} from stamp_pictures where owner = $1 order by made_at`, [owner]);

export const selectStamp = (db: Queries, id: string): Promise<StampPicture | undefined> =>
  selectOne(db, StampPicture, `select ${COLUMNS} from stamp_pictures where id = $1`, [id]);

export async function insertStamp(
  tx: Queries,
  stamp: { id: string; owner: string; name: string; file: Buffer },
): Promise<void> {
  await tx.query(
    'insert into stamp_pictures (id, owner, name, file) values ($1, $2, $3, $4) on conflict (id) do nothing',
    [stamp.id, stamp.owner, stamp.name, stamp.file],
  );
}

export async function deleteStamp(db: Queries, id: string): Promise<void> {
  await db.query('delete from stamp_pictures where id = $1', [id]);
}
