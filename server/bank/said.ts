import { z } from 'zod';
import { select, type Queries } from '../db/database.ts';

/** So many of what somebody said last are compared with what they say now. */
const LAST = 500;

/** What a teacher said on works last, without what came out of the bank. */
export async function selectSaid(db: Queries, author: string): Promise<string[]> {
  const rows = await select(
    db,
    z.object({ text: z.string() }),
    `select left(concat_ws(' ', r.content ->> 'text', t.text), 5000) as text
     from remarks r left join transcripts t on t.recording = r.recording
     where r.author = $1 and r.put_aside_at is null and not exists (select from bank_uses u where u.remark = r.id)
     order by r.made_at desc limit $2`,
    [author, LAST],
  );
  return rows.map(({ text }) => text).filter((text) => text !== '');
}
