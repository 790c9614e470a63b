import { randomUUID } from 'node:crypto';
import { z } from 'zod';
import { Id } from '../../contract/basics.ts';
import { select, type Queries } from '../db/database.ts';
import { copyRecording } from '../recordings/copy.ts';

const NoteRow = z.object({ id: Id, question: Id.nullable(), author: Id, recording: Id.nullable() });

/** What is said on the page of a course is said on that of another one as well. Call in a transaction. */
export const copyCourseNotes = (tx: Queries, from: string, to: string): Promise<void> =>
  copyNotes(tx, { course: to, assignment: null }, "n.place = 'course' and n.course = $1", from);

/** The same for the instructions of an assignment and its questions, which have their places already. Call in a transaction. */
export const copyAssignmentNotes = (
  tx: Queries,
  from: string,
  to: { course: string; assignment: string },
): Promise<void> => copyNotes(tx, to, "n.place in ('instructions', 'question') and n.assignment = $1", from);

async function copyNotes(
  tx: Queries,
  to: { course: string; assignment: string | null },
  which: string,
  from: string,
): Promise<void> {
  const notes = await select(
    tx,
    NoteRow,
    `select n.id, t.id as question, n.author, n.recording from notes n left join questions q on q.id = n.question
     left join questions t on t.assignment = $2 and t.position = q.position
     where ${which} and n.put_aside_at is null order by n.made_at, n.id`,
    [from, to.assignment],
  );
  for (const { id, question, author, recording } of notes) {
    const copy = randomUUID();
    if (recording) await copyRecording(tx, recording, { id: copy, owner: author });
    await tx.query(
      `insert into notes (id, course, place, assignment, question, author, recording, content, made_at)
       select $2, $3, place, $4, $5, author, $6, content, made_at from notes where id = $1`,
      [id, copy, to.course, to.assignment, question, recording && copy],
    );
  }
}
