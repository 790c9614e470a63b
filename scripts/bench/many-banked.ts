import type { Findable } from '#core/bank';
import { fileURLToPath } from 'node:url';
import { TEACHERS } from '../../demo/people.ts';
import { NO_WORDS } from '../../contract/said.ts';
import { openDatabase } from '../../server/db/open.ts';
import { fromRoot } from '../../server/root.ts';

const PIECE = 500;

/** Written remarks in the bank of the sample school's first teacher. */
export async function addManyBanked(dataFolder: string, texts: readonly Findable[]): Promise<void> {
  const cacheFolder = fileURLToPath(fromRoot('.cache'));
  const db = await openDatabase({ databaseUrl: undefined, dataFolder, cacheFolder });
  for (let at = 0; at < texts.length; at += PIECE)
    await db.query(
      `insert into banked_remarks (id, owner, content, kind, language)
       select gen_random_uuid(), (select id from people where name = $1),
         $2::jsonb || jsonb_build_object('name', text ->> 'name', 'text', text ->> 'transcript'), 'next', text ->> 'language'
       from jsonb_array_elements($3::jsonb) text`,
      [TEACHERS[0], JSON.stringify(NO_WORDS), JSON.stringify(texts.slice(at, at + PIECE))],
    );
  await db.close();
}
