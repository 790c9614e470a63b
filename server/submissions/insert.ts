import { folioOf } from '#core/folio';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { selectOne, type Queries } from '../db/database.ts';
import type { ReadResult } from '../documents/document.ts';
import { mediaTypeOf } from '../documents/media-type.ts';
import { keepMedium, keepUploaded } from '../media/media.ts';
import type { UploadedFile } from '../uploads/uploaded.ts';

/** A file as it was handed in, with what was read from it. Answers that were typed come from no file. */
export interface HandedIn extends Pick<ReadResult, 'file' | 'pictures'> {
  source?: Buffer | UploadedFile;
}

/** SHA-256 of all that it is made of. */
interface KeptFile {
  file: ReadResult['file'];
  medium: Buffer | undefined;
  pictures: Buffer[];
}

export interface NewSubmission {
  id: string;
  assignment: string;
  student: string;
  files: KeptFile[];
  /** ISO 8601; now where it is not given. */
  handedInAt?: string;
}

/** Brings in what a work is made of, piece by piece; what makes it a work then only refers to it. */
export async function keepFiles(db: Queries, files: readonly HandedIn[]): Promise<KeptFile[]> {
  const kept: KeptFile[] = [];
  for (const { file, source, pictures } of files) {
    const one: KeptFile = { file, medium: source && (await keepSource(db, source, mediaTypeOf(file))), pictures: [] };
    for (const { bytes, mediaType } of pictures) one.pictures.push(await keepMedium(db, Buffer.from(bytes), mediaType));
    kept.push(one);
  }
  return kept;
}

const keepSource = (db: Queries, source: Buffer | UploadedFile, mediaType: string): Promise<Buffer> =>
  Buffer.isBuffer(source) ? keepMedium(db, source, mediaType) : keepUploaded(db, source, mediaType);

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
  for (const [position, { file, medium }] of files.entries()) {
    if (!medium) continue;
    await tx.query(
      'insert into submission_files (submission, position, name, format, file) values ($1, $2, $3, $4, $5)',
      [id, position, file.name, file.format, medium],
    );
  }
  for (const [position, picture] of files.flatMap(({ pictures }) => pictures).entries())
    await tx.query('insert into submission_pictures (submission, position, file) values ($1, $2, $3)', [
      id,
      position,
      picture,
    ]);
  return id;
}

/** The newest version, where it reads the same and is made of the same files. */
async function selectSame(
  tx: Queries,
  { assignment, student, files }: NewSubmission,
  folio: string,
): Promise<string | undefined> {
  const hashes = files.flatMap(({ medium }) => (medium ? [medium.toString('hex')] : []));
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
