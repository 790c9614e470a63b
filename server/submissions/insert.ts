import { folioOf } from '#core/folio';
import { createHash } from 'node:crypto';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { selectOne, type Queries } from '../db/database.ts';
import type { ReadResult } from '../documents/document.ts';
import { mediaTypeOf } from '../documents/media-type.ts';
import { keepMedium } from '../media/media.ts';

/** A file as it was handed in, with what was read from it. Answers that were typed have no bytes. */
export interface HandedIn extends ReadResult {
  bytes?: Buffer;
}

export interface NewSubmission {
  id: string;
  assignment: string;
  student: string;
  files: HandedIn[];
  /** ISO 8601; now where it is not given. */
  handedInAt?: string;
}

/** Brings in what a work is made of, piece by piece; the transaction that makes it a work then only finds it. */
export async function keepFiles(db: Queries, files: readonly HandedIn[]): Promise<void> {
  for (const { file, bytes, pictures } of files) {
    if (bytes) await keepMedium(db, bytes, mediaTypeOf(file));
    for (const picture of pictures) await keepMedium(db, Buffer.from(picture.bytes), picture.mediaType);
  }
}

/**
 * Keeps handed-in files with all that was read from them, as the next version of this student's work. Call in a transaction.
 * @returns the id of the version: of the newest one where that is the very same, because what is sent twice is one version
 */
export async function insertSubmission(tx: Queries, submission: NewSubmission): Promise<string> {
  const { id, assignment, student, files, handedInAt } = submission;
  const folio = folioOf(
    files.map(({ file }) => file),
    files.map(({ pictures }) => pictures.length),
  );
  // Two uploads at once must not both become the same version.
  await tx.query('select from enrolments where person = $1 for update', [student]);
  const same = await selectSame(tx, submission, JSON.stringify(folio));
  if (same) return same;
  await tx.query(
    `insert into submissions (id, assignment, student, version, folio, handed_in_at)
       select $1, $2, $3, coalesce(max(version), 0) + 1, $4, coalesce($5::timestamptz, now())
       from submissions where assignment = $2 and student = $3`,
    [id, assignment, student, JSON.stringify(folio), handedInAt ?? null],
  );
  for (const [position, { file, bytes }] of files.entries()) {
    if (!bytes) continue;
    await tx.query(
      'insert into submission_files (submission, position, name, format, file) values ($1, $2, $3, $4, $5)',
      [id, position, file.name, file.format, await keepMedium(tx, bytes, mediaTypeOf(file))],
    );
  }
  for (const [position, { bytes, mediaType }] of files.flatMap(({ pictures }) => pictures).entries()) {
    const picture = await keepMedium(tx, Buffer.from(bytes), mediaType);
    await tx.query('insert into submission_pictures (submission, position, file) values ($1, $2, $3)', [
      id,
      position,
      picture,
    ]);
  }
  return id;
}

/** The newest version, where it reads the same and is made of the same files. */
async function selectSame(
  tx: Queries,
  { assignment, student, files }: NewSubmission,
  folio: string,
): Promise<string | undefined> {
  const hashes = files.flatMap(({ bytes }) => (bytes ? [createHash('sha256').update(bytes).digest('hex')] : []));
  const row = await selectOne(
    tx,
    z.object({ id: Id }),
    `select s.id from submissions s
     where s.assignment = $1 and s.student = $2 and s.withdrawn_at is null and s.folio = $3::jsonb
       and s.version = (select max(version) from submissions where assignment = $1 and student = $2)
       and $4::jsonb = (select coalesce(jsonb_agg(encode(f.file, 'hex') order by f.position), '[]')
                        from submission_files f where f.submission = s.id)`,
    [assignment, student, folio, JSON.stringify(hashes)],
  );
  return row?.id;
}
