import { randomUUID } from 'node:crypto';
import { readdir, readFile } from 'node:fs/promises';
import { describe, expect, it } from 'vitest';
import { DEFAULT_KEY } from '#core/margin';
import { NO_WORDS } from '../../contract/said.ts';
import { asTeacher } from '../access/visible.ts';
import { fromRoot } from '../root.ts';
import { selectRemarks } from '../remarks/queries.ts';
import { selectKept } from '../recordings/queries.ts';
import { selectStates } from '../transcripts/queries.ts';
import { selectFolio, selectWork } from '../submissions/queries.ts';
import { bodies } from '../testing/databases.ts';
import type { Database } from './database.ts';
import { migrate } from './migrate.ts';

const FOLDER = fromRoot('server/db/migrations/');

/** A database as it was after so many migrations. */
const asOf =
  (last: number) =>
  async (db: Database): Promise<void> => {
    await db.script(
      'create table migrations (number int primary key, name text not null, run_at timestamptz not null default now())',
    );
    for (const name of (await readdir(FOLDER)).sort().slice(0, last)) {
      await db.script(await readFile(new URL(name, FOLDER), 'utf8'));
      await db.query('insert into migrations (number, name) values ($1, $2)', [Number(name.slice(0, 4)), name]);
    }
  };

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
    const test = await open(asOf(1));
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
      const work = (await selectWork(db, marked, true))!;
      expect(work.files).toEqual([{ name: 'tides.docx', mediaType: 'application/x' }]);
      expect(await selectFolio(db, marked)).toEqual({
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

  it('make recordings things of their own, with all that hangs on them', async () => {
    const test = await open(asOf(6));
    const { db } = test;
    try {
      const [course, assignment, teacher, student, work] = Array.from({ length: 5 }, () => randomUUID());
      const [spoken, written, silent, voiced, typed] = Array.from({ length: 5 }, () => randomUUID());
      const media = [1, 2, 3].map((byte) => Buffer.alloc(32, byte));
      await db.query("insert into courses (id, title, spoken_language) values ($1, 'Shore', 'fr')", [course]);
      await db.query("insert into assignments (id, course, title, brief) values ($1, $2, 'Essay', '')", [
        ...[assignment, course],
      ]);
      for (const [id, name, language] of [
        [teacher, 'Ada', null],
        [student, 'Bo', 'en-GB'],
      ])
        await db.query(
          "insert into people (id, name, login, password_hash, spoken_language) values ($1, $2, lower($2), '', $3)",
          [id, name, language],
        );
      for (const sha256 of media)
        await db.query("insert into media (sha256, media_type, byte_length) values ($1, 'audio/ogg', 3)", [sha256]);
      await db.query(
        `insert into submissions (id, assignment, student, version, folio, returned_at) values ($1, $2, $3, 1, '{}', now())`,
        [work, assignment, student],
      );
      const edit = { kept: [{ start: 0.5, end: 2 }], levelled: true };
      await db.query(
        `insert into remarks (id, submission, author, kind, anchor, sound, original, duration, peaks, picture, edit, name, tags,
           private, made_at)
         values ($1, $2, $3, 'next', '{"type":"whole"}', $4, $5, 1.5, '[9]', 'camera', $6, 'Sources', '["evidence"]', true,
           '2026-01-02T10:00:00Z')`,
        [spoken, work, teacher, media[0], media[1], JSON.stringify(edit)],
      );
      const said = async (id: string | undefined, more: string): Promise<void> => {
        await db.query(
          `insert into remarks (id, submission, author, kind, anchor, text, link, reaction, stamp)
           values ($1, $2, $3, 'next', '{"type":"whole"}', ${more})`,
          [id, work, teacher],
        );
      };
      await said(written, `'Look', 'https://example.org/', '👏', '{"drawing":"wave","size":2}'`);
      await said(silent, `'', null, '👏', null`);
      const words = [{ word: 'Regarde', start: 0, end: 0.4 }];
      for (const [remark, text] of [
        [spoken, 'Regarde'],
        [silent, 'Words without sound'],
      ])
        await db.query(
          "insert into transcripts (remark, language, text, words, source, engine) values ($1, 'fr-CH', $2, $3, 'machine', 'An engine')",
          [remark, text, JSON.stringify(words)],
        );
      await db.query(
        `insert into transcript_states (remark, language, text, words, source, engine, approximate, read, changed_by)
         values ($1, 'fr', 'Avant', '[]', 'machine', '', true, false, $2)`,
        [spoken, teacher],
      );
      await db.query("insert into translations (remark, language, text, source) values ($1, 'en', 'Look', 'person')", [
        spoken,
      ]);
      await db.query(
        "insert into speech_jobs (remark, task, language, state, reason) values ($1, 'transcribe', 'fr', 'failed', 'Why')",
        [spoken],
      );
      await db.query('insert into listenings (remark, person, finished_at) values ($1, $2, now())', [spoken, student]);
      await db.query(
        "insert into replies (id, remark, author, text, sound, duration, peaks) values ($1, $2, $3, '', $4, 2, '[3]')",
        [voiced, spoken, student, media[2]],
      );
      await db.query("insert into replies (id, remark, author, text) values ($1, $2, $3, 'Merci')", [
        ...[typed, spoken, student],
      ]);

      await migrate(db);
      const remarks = new Map((await selectRemarks(db, { submission: work! }, asTeacher)).map((one) => [one.id, one]));
      expect(remarks.get(spoken!)).toMatchObject({
        ...{
          name: 'Sources',
          text: '',
          tags: ['evidence'],
          private: true,
          madeAt: expect.stringContaining('2026-01-02'),
        },
        recording: {
          ...{ id: spoken, edit, language: 'fr-CH' },
          sound: { sha256: media[0]!.toString('hex'), duration: 1.5, peaks: [9], picture: 'camera' },
          transcript: { text: 'Regarde', words, engine: 'An engine' },
          translations: [{ language: 'en', text: 'Look' }],
          speech: { task: 'transcribe', state: 'failed', reason: 'Why' },
          heard: { finishedAt: expect.any(String) as string },
        },
        replies: [
          { id: voiced, recording: { id: voiced, language: 'en-GB', sound: { duration: 2, peaks: [3] } } },
          { id: typed, text: 'Merci', recording: null },
        ],
      });
      expect(remarks.get(written!)).toMatchObject({
        ...{ text: 'Look', link: 'https://example.org/', reaction: '👏', stamp: { drawing: 'wave', size: 2 } },
        recording: null,
      });
      expect(remarks.get(silent!)).toMatchObject({ text: 'Words without sound', recording: null });
      expect((await selectStates(db, spoken!)).map(({ text, changedBy }) => [text, changedBy])).toEqual([
        ['Avant', 'Ada'],
      ]);
      expect((await selectKept(db, spoken!))!.original).toEqual(media[1]);
      const [found] = await db.query(
        "select remark as id from remark_words where words @@ word_query('sources evidence', true)",
      );
      expect(found).toEqual({ id: spoken });
    } finally {
      await test.remove();
    }
  });
});
