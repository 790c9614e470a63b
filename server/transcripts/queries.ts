import { z } from 'zod';
import { carried, isDraft, type Word } from '#core/transcript';
import { Instant } from '../../contract/basics.ts';
import { Transcript } from '../../contract/transcripts.ts';
import { select, selectOne, type Queries } from '../db/database.ts';

/** The transcript `t` of a row, null where it has none. */
export const TRANSCRIPT_JSON = `case when t.recording is not null then jsonb_build_object(
  'language', t.language, 'text', t.text, 'words', t.words, 'source', t.source, 'engine', t.engine,
  'approximate', t.approximate, 'read', t.read) end`;

/** The same words in other languages. */
export const TRANSLATIONS_JSON = (recording: string): string => `(select coalesce(jsonb_agg(jsonb_build_object(
  'language', x.language, 'text', x.text, 'source', x.source, 'engine', x.engine) order by x.language), '[]')
  from translations x where x.recording = ${recording})`;

export const selectTranscript = (db: Queries, recording: string): Promise<Transcript | undefined> =>
  selectOne(
    db,
    Transcript,
    'select language, text, words, source, engine, approximate, read from transcripts where recording = $1',
    [recording],
  );

/**
 * Puts a transcript in the place of the one that is there, which is kept as an earlier state where its words differ. Call in a
 * transaction.
 * @param changedBy null for an engine
 * @throws ZodError for what could not be read again, whatever an engine makes up
 */
export async function putTranscript(
  tx: Queries,
  recording: string,
  transcript: Transcript,
  changedBy: string | null,
): Promise<void> {
  Transcript.parse(transcript);
  await tx.query(
    `insert into transcript_states (recording, language, text, words, source, engine, approximate, read, changed_by)
     select recording, language, text, words, source, engine, approximate, read, $2 from transcripts
     where recording = $1 and (text <> $3 or language <> $4)`,
    [recording, changedBy, transcript.text, transcript.language],
  );
  await tx.query(
    `insert into transcripts (recording, language, text, words, source, engine, approximate, read)
     values ($1, $2, $3, $4, $5, $6, $7, $8)
     on conflict (recording) do update set language = excluded.language, text = excluded.text, words = excluded.words,
       source = excluded.source, engine = excluded.engine, approximate = excluded.approximate, read = excluded.read,
       changed_at = now()`,
    [
      recording,
      transcript.language,
      transcript.text,
      JSON.stringify(transcript.words),
      transcript.source,
      transcript.engine,
      transcript.approximate,
      transcript.read,
    ],
  );
}

/** What a person wrote stays: a machine's draft only takes an empty place or that of another draft. */
export async function putDraft(tx: Queries, recording: string, draft: Transcript): Promise<boolean> {
  const before = await selectTranscript(tx, recording);
  if (before && !isDraft(before)) return false;
  await putTranscript(tx, recording, draft, null);
  return true;
}

/**
 * The times of a text, if it has not been changed meanwhile.
 * @param aligned with the text as it is set into sentences
 */
export async function putTimes(
  tx: Queries,
  recording: string,
  textBefore: string,
  { words, text, approximate }: { words: Word[]; text: string; approximate: boolean },
): Promise<void> {
  const before = await selectTranscript(tx, recording);
  if (!before || before.text !== textBefore) return;
  const known = before.words;
  const timed = words.map((word, index) => {
    const confidence = known.length === words.length ? known[index]!.confidence : undefined;
    return confidence === undefined ? word : { ...word, confidence };
  });
  await tx.query(
    'update transcripts set words = $2, text = $3, approximate = $4, changed_at = now() where recording = $1',
    [recording, JSON.stringify(timed), text, approximate],
  );
}

interface Mended {
  language: string;
  text: string;
  read: boolean;
}

/** The transcript as a person mended it; words that stayed keep their times until all are aligned again. */
export function mended(before: Transcript | undefined, { language, text, read }: Mended, duration: number): Transcript {
  if (before && before.text === text && before.language === language) return { ...before, read };
  const words = carried(before?.words ?? [], text, duration).map(({ word, start, end, confidence }) => ({
    word,
    start,
    end,
    // Somebody who has read it has heard every word.
    ...(!read && confidence !== undefined && { confidence }),
  }));
  return { language, text, words, source: 'person', engine: '', approximate: true, read };
}

const State = Transcript.omit({ words: true }).extend({ until: Instant, changedBy: z.string().nullable() });

export const selectStates = (db: Queries, recording: string): Promise<z.infer<typeof State>[]> =>
  select(
    db,
    State,
    `select h.language, h.text, h.source, h.engine, h.approximate, h.read, h.until, p.name as "changedBy"
     from transcript_states h left join people p on p.id = h.changed_by where h.recording = $1 order by h.id desc limit 100`,
    [recording],
  );

/** An empty text takes the words in that language away. */
export async function putTranslation(
  db: Queries,
  recording: string,
  { language, text, source, engine }: { language: string; text: string; source: string; engine: string },
): Promise<void> {
  if (text === '') {
    await db.query('delete from translations where recording = $1 and language = $2', [recording, language]);
    return;
  }
  await db.query(
    `insert into translations (recording, language, text, source, engine) values ($1, $2, $3, $4, $5)
     on conflict (recording, language) do update set text = excluded.text, source = excluded.source,
       engine = excluded.engine, changed_at = now()`,
    [recording, language, text, source, engine],
  );
}
