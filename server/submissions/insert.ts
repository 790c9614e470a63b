import type { Queries } from '../db/database.ts';
import type { ReadResult } from '../documents/document.ts';
import { keepMedium } from '../media/media.ts';

export interface NewSubmission {
  id: string;
  assignment: string;
  student: string;
  fileName: string;
  bytes: Buffer;
  read: ReadResult;
  /** ISO 8601; now where it is not given. */
  handedInAt?: string;
}

const DOCX = 'application/vnd.openxmlformats-officedocument.wordprocessingml.document';

/** Keeps a handed-in file with all that was read from it, as the next version of this student's work. Call in a transaction. */
export async function insertSubmission(tx: Queries, submission: NewSubmission): Promise<void> {
  const { id, assignment, student, fileName, read, handedInAt } = submission;
  // Two uploads at once must not both become the same version.
  await tx.query('select from enrolments where person = $1 for update', [student]);
  const file = await keepMedium(tx, submission.bytes, DOCX);
  await tx.query(
    `insert into submissions (id, assignment, student, version, file_name, file, folio, handed_in_at)
       select $1, $2, $3, coalesce(max(version), 0) + 1, $4, $5, $6, coalesce($7::timestamptz, now())
       from submissions where assignment = $2 and student = $3`,
    [id, assignment, student, fileName, file, JSON.stringify(read.folio), handedInAt ?? null],
  );
  for (const [position, { bytes, mediaType }] of read.pictures.entries()) {
    const picture = await keepMedium(tx, Buffer.from(bytes), mediaType);
    await tx.query('insert into submission_pictures (submission, position, file) values ($1, $2, $3)', [
      id,
      position,
      picture,
    ]);
  }
}
