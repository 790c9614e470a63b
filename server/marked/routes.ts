import type { Folio } from '#core/folio';
import { Router } from 'express';
import { markedFile } from '../../contract/submissions.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { saveAs } from '../http/save-as.ts';
import { serveBytes } from '../http/serve.ts';
import { selectMarginKey } from '../margin-key/queries.ts';
import { findMedium, readWholeMedium } from '../media/media.ts';
import { selectRemarks } from '../remarks/queries.ts';
import { selectFile, selectFolio } from '../submissions/queries.ts';
import { markingThread } from './marking-thread.ts';
import { marksOf } from './marks.ts';

/** A file of a work with what was said about it, for any reader of PDF. */
export function markedRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  const marking = markingThread();

  serveBytes(router, context, markedFile, 'work.marked', async (params, request, response, person, standing) => {
    const { submission, position } = params;
    const file = /^\d{1,4}$/.test(position) ? Number(position) : -1;
    const sha256 = await selectFile(db, 'submission_files', submission, file);
    const medium = sha256 && (await findMedium(db, sha256));
    const folio = await selectFolio(db, submission);
    if (!folio || !medium) throw problems.notFound();
    const kind = formatOf(folio, file);
    if (!kind) throw problems.cannotMark();
    const reader = { teacher: standing.teacher, person: person.id };
    const remarks = await selectRemarks(db, { submission }, reader);
    const bytes = await marking.ask<Uint8Array>({
      ...kind,
      bytes: await readWholeMedium(db, sha256, medium),
      marks: marksOf(folio, file, remarks, await selectMarginKey(db, submission)),
      copy: request.query.copy === 'true',
    });
    // The name of a file often says whose it is, which a teacher may not know yet.
    await saveAs(response, 'marked.pdf', 'application/pdf', once(bytes));
  });
  return router;
}

async function* once(bytes: Uint8Array): AsyncGenerator<Uint8Array> {
  yield bytes;
}

type Markable = { format: 'pdf' } | { format: 'png' | 'jpeg'; size: { width: number; height: number } };

function formatOf({ files, leaves }: Folio, file: number): Markable | undefined {
  const format = files[file]?.format;
  if (format === 'pdf') return { format };
  const picture = leaves.find((leaf) => leaf.file === file && leaf.kind === 'picture');
  if ((format !== 'png' && format !== 'jpeg') || picture?.kind !== 'picture') return undefined;
  return { format, size: { width: picture.width, height: picture.height } };
}
