import { randomUUID } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { describe, expect, it } from 'vitest';
import { DEFAULT_KEY } from '#core/margin';
import { NO_WORDS } from '../../contract/said.ts';
import { asTeacher } from '../access/visible.ts';
import { selectRemarks } from '../remarks/queries.ts';
import { selectWork } from '../submissions/queries.ts';
import { bodies } from '../testing/databases.ts';
import type { Database } from './database.ts';
import { migrate } from './migrate.ts';

/** A database as it was before the second migration. */
async function firstTables(db: Database): Promise<void> {
  await db.script(
    'create table migrations (number int primary key, name text not null, run_at timestamptz not null default now())',
  );
  await db.script(await readFile(new URL('./migrations/0001_school.sql', import.meta.url), 'utf8'));
  await db.query("insert into migrations (number, name) values (1, '0001_school.sql')");
}

const OLD_FOLIO = {
  format: 'docx',
  title: 'Tides',
  text: 'Tides\nThey turn.\n',
  leaves: [{ label: 'Text', kind: 'text', start: 0, end: 17 }],
  blocks: [
    { type: 'heading', level: 1, runs: [{ text: 'Tides', marks: [] }] },
    { type: 'paragraph', runs: [{ text: 'They turn.', marks: ['bold'] }] },
  ],
};

describe.each(bodies)('the migrations on $name', ({ open }) => {
  it('keep works that were handed in and remarks that were made before them', async () => {
    const test = await open(firstTables);
    const { db } = test;
    try {
      const [course, assignment, person] = [randomUUID(), randomUUID(), randomUUID()];
      const [marked, waiting] = [randomUUID(), randomUUID()];
      await db.query("insert into courses (id, title) values ($1, 'Shore')", [course]);
      await db.query("insert into assignments (id, course, title, brief) values ($1, $2, 'Essay', '')", [
        assignment,
        course,
      ]);
      await db.query("insert into people (id, name, login, password_hash) values ($1, 'Ada', 'ada', '')", [person]);
      const hash = Buffer.alloc(32, 7);
      await db.query("insert into media (sha256, media_type, byte_length) values ($1, 'application/x', 3)", [hash]);
      for (const [version, id] of [marked, waiting].entries())
        await db.query(
          'insert into submissions (id, assignment, student, version, file_name, file, folio) values ($1, $2, $3, $4, $5, $6, $7)',
          [id, assignment, person, version + 1, 'tides.docx', hash, JSON.stringify(OLD_FOLIO)],
        );
      await db.query(
        "insert into remarks (id, submission, author, kind, anchor, sound, duration, peaks) values ($1, $2, $3, 'next', $4, $5, 1, '[1]')",
        [randomUUID(), marked, person, JSON.stringify({ type: 'whole' }), hash],
      );

      await migrate(db);
      const work = (await selectWork(db, marked))!;
      expect(work.files).toEqual([{ name: 'tides.docx', mediaType: 'application/x' }]);
      expect(work.folio).toEqual({
        title: 'Tides',
        files: [{ name: 'tides.docx', format: 'docx' }],
        text: OLD_FOLIO.text,
        leaves: [{ kind: 'text', label: 'Text', file: 0, start: 0, end: 17, blocks: OLD_FOLIO.blocks }],
      });
      const [remark] = await selectRemarks(db, { submission: marked }, asTeacher);
      expect(remark).toMatchObject({
        ...NO_WORDS,
        kind: 'next',
        recording: { sound: { sha256: hash.toString('hex'), duration: 1, peaks: [1], picture: null }, edit: null },
        file: null,
      });
      expect(work).toMatchObject({ budget: 30, marginKey: DEFAULT_KEY });
      const opened = await db.query('select id, opened_at is not null as opened from submissions order by version');
      expect(opened).toEqual([
        { id: marked, opened: true },
        { id: waiting, opened: false },
      ]);
    } finally {
      await test.remove();
    }
  });
});
