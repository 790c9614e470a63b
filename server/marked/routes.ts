import type { Folio } from '#core/folio';
import { Router } from 'express';
import { markedFile } from '../../contract/submissions.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { saveAs } from '../http/save-as.ts';
import { serveBytes } from '../http/serve.ts';
import { selectMarginKey } from '../margin-key/queries.ts';
import { findMedium, readWholeMedium } from '../media/media.ts';
import { namelessFiles } from '../nameless/files.ts';
import { selectRemarks } from '../remarks/queries.ts';
import { selectFile, selectFolio } from '../submissions/queries.ts';
import { markingThread } from './marking-thread.ts';
import { marksOf } from './marks.ts';

/** A file of a work with what was said about it, for any reader of PDF. */
export function markedRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  const marking = markingThread();
  const nameless = namelessFiles(db);

  serveBytes(router, context, markedFile, 'work.marked', async (params, request, response, person, standing) => {
    const { submission, position } = params;
    const file = /^\d{1,4}$/.test(position) ? Number(position) : -1;
    const found = await selectFile(db, 'submission_files', submission, file);
    const medium = found && (await findMedium(db, found.file));
    const folio = await selectFolio(db, submission);
    if (!folio || !medium) throw problems.notFound();
    const hidden = found.nameless && standing.teacher;
    const kind = formatOf(folio, file);
    if (!kind) throw problems.cannotMark();
    const reader = { teacher: standing.teacher, person: person.id };
    const remarks = await selectRemarks(db, { submission }, reader);
    const bytes = await marking.ask<Uint8Array>({
      ...kind,
      bytes: hidden
        ? (await nameless.read(found.file, found.format)).bytes
        : await readWholeMedium(db, found.file, medium),
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
