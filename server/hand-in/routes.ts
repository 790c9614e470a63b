import { Router } from 'express';
import { randomUUID } from 'node:crypto';
import type { z } from 'zod';
import { handIn, handInFor, readReading, type Reading } from '../../contract/assignments.ts';
import { withdrawWork } from '../../contract/submissions.ts';
import { selectQuestions } from '../assignments/queries.ts';
import type { Context } from '../context.ts';
import { DocumentError, documentErrors, isTooMuch, type PagesRead, type ReadResult } from '../documents/document.ts';
import { reattachSoon } from '../earlier/reattach.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { withWorkHistory } from '../grading/history.ts';
import { keepFiles, type HandedIn } from '../submissions/insert.ts';
import { updateWithdrawn } from '../submissions/queries.ts';
import { bytesOf, type UploadedFile } from '../uploads/uploaded.ts';
import { insertWork } from './insert-work.ts';
import { learnsIn, refuseByRules } from './queries.ts';

interface Work {
  assignment: string;
  student: string;
  files: UploadedFile[];
}

/** Work that comes as files. */
export function handInRoutes(context: Context): Router {
  const router = Router();
  const { db, readDocument, settings } = context;
  /** Reading progress by person. */
  const underWay = new Map<string, Reading>();

  serve(router, context, handIn, 'assignment.handIn', ({ params, person, files }) =>
    keepWork(person.id, { assignment: params.assignment, student: person.id, files }),
  );

  serve(
    router,
    context,
    handInFor,
    'assignment.set',
    async ({ params: { assignment }, body: { student }, person, files }) => {
      if (!(await learnsIn(db, assignment, student))) throw problems.notAStudent();
      return keepWork(person.id, { assignment, student, files });
    },
  );
  serve(router, context, withdrawWork, 'work.withdraw', async ({ params: { submission }, body, person }) => {
    const isDone = await db.transaction((tx) =>
      withWorkHistory(tx, submission, person.id, () => updateWithdrawn(tx, submission, body.withdrawn)),
    );
    if (!isDone) throw problems.opened();
    return {};
  });
  serve(router, context, readReading, 'own', async ({ person }) => ({ reading: underWay.get(person.id) ?? null }));
  return router;

  /** @param who waits for it, and whose files they are */
  async function keepWork(who: string, { assignment, student, files }: Work): Promise<z.infer<typeof handIn.answer>> {
    if ((await selectQuestions(db, assignment)).length > 0) throw problems.hasQuestions();
    const together = files.reduce((sum, { byteLength }) => sum + byteLength, 0);
    if (together > settings.maxFileBytes) throw problems.workTooLarge(settings.maxFileBytes);
    const handedIn: (ReadResult & HandedIn)[] = [];
    for (const source of files) handedIn.push({ ...(await readOrRefuse(who, source, files.length)), source });
    if (isTooMuch(handedIn.map(({ bulk }) => bulk)))
      throw problems.unreadableDocument(documentErrors.tooMuchText().message);
    const kept = await keepFiles(db, handedIn);
    const submission = await db.transaction(async (tx) => {
      // What a teacher puts in is what they take.
      if (who === student)
        await refuseByRules(
          tx,
          assignment,
          student,
          handedIn.map(({ file }) => file.format),
        );
      return insertWork(tx, { id: randomUUID(), assignment, student, files: kept }, who);
    });
    reattachSoon(context, submission, who);
    const notes = handedIn.flatMap(({ file, notes: some }) => some.map((note) => ({ file: file.name, ...note })));
    return { submission, notes };
  }

  async function readOrRefuse(who: string, file: UploadedFile, count: number): Promise<ReadResult> {
    try {
      const { name, encoding } = file;
      const onPage = (pages: PagesRead): void => void underWay.set(who, { file: name, ...pages });
      return await readDocument(who, () => bytesOf(db, file), name, { encoding, onPage });
    } catch (error) {
      if (!(error instanceof DocumentError)) throw error;
      throw problems.unreadableDocument(count > 1 ? `${file.name}: ${error.message}` : error.message);
    } finally {
      underWay.delete(who);
    }
  }
}
