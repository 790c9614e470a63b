import { Router } from 'express';
import type { Address } from '../../contract/endpoint.ts';
import { readReceipt, readWork, workFile, workPicture } from '../../contract/submissions.ts';
import { markOpened } from '../access/work-state.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes, StoredJson } from '../http/serve.ts';
import { sendMedium, sendRange } from '../media/send.ts';
import { namelessFiles } from '../nameless/files.ts';
import { selectFile, selectFolioText, selectReceipt, selectWork } from './queries.ts';

export function submissionRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  const nameless = namelessFiles(db);

  serve(router, context, readWork, 'work.read', async ({ params, standing }) => {
    if (standing.teacher && !standing.opened) await markOpened(db, params.submission);
    const work = found(await selectWork(db, params.submission, standing.teacher));
    const folio = await selectFolioText(db, params.submission, work.nameless);
    return { ...work, folio: new StoredJson(found(folio)) };
  });

  serve(router, context, readReceipt, 'work.receipt', async ({ params }) =>
    found(await selectReceipt(db, params.submission)),
  );

  type Numbered = Address<`/submissions/:submission/${string}/:position`>;
  const serveFiles = (address: Numbered, table: 'submission_files' | 'submission_pictures'): void =>
    serveBytes(
      router,
      context,
      address,
      'work.read',
      async ({ submission, position }, request, response, _person, standing) => {
        const known = /^\d{1,4}$/.test(position)
          ? await selectFile(db, table, submission, Number(position))
          : undefined;
        const { file, format, nameless: hidden } = found(known);
        if (!hidden || !standing.teacher) return sendMedium(db, file, request, response);
        const { bytes, mediaType } = await nameless.read(file, format);
        // Made of other bytes, so that neither they nor their sum tell whose file it is; and no longer than it is nameless.
        await sendRange(request, response, {
          ...{ byteLength: bytes.length, mediaType, immutable: false, tag: `nameless-${submission}-${position}` },
          read: (start, end) => [bytes.subarray(start, end + 1)],
        });
      },
    );
  serveFiles(workFile, 'submission_files');
  serveFiles(workPicture, 'submission_pictures');
  return router;
}

function found<T>(value: T | undefined): T {
  if (value === undefined) throw problems.notFound();
  return value;
}
