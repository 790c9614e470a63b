import { fileTypeFromBuffer } from 'file-type';
import { Router } from 'express';
import { z } from 'zod';
import { addHandout, changeHandout, handoutFile, MOST_HANDOUTS } from '../../contract/handouts.ts';
import type { Context } from '../context.ts';
import { selectOne } from '../db/database.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { keepUploaded } from '../media/media.ts';
import { sendMedium } from '../media/send.ts';
import { insertHandout, selectHandout, selectHandouts, updateHandout } from './queries.ts';

/** What an assignment hands out. */
export function handoutRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, addHandout, 'assignment.set', async ({ params: { assignment, handout }, body, file }) => {
    const { name, head } = file!;
    const type = (await fileTypeFromBuffer(head))?.mime ?? 'application/octet-stream';
    await db.transaction(async (tx) => {
      await tx.query('select from assignments where id = $1 for update', [assignment]);
      const there = await selectHandouts(tx, assignment);
      if (there.length >= MOST_HANDOUTS && !there.some(({ id }) => id === handout))
        throw problems.tooManyFiles(MOST_HANDOUTS);
      const kept = await keepUploaded(tx, file!, type);
      const row = { id: handout, assignment, name, file: kept, given: body.given };
      if (!(await insertHandout(tx, row))) throw problems.idTaken();
    });
    return (await selectHandout(db, handout))!;
  });

  serve(router, context, changeHandout, 'handout.change', async ({ params: { handout }, body }) => {
    await updateHandout(db, handout, body);
    return (await selectHandout(db, handout))!;
  });

  serveBytes(router, context, handoutFile, 'handout.read', async ({ handout }, request, response) => {
    const found = await selectOne(
      db,
      z.object({ name: z.string(), file: z.instanceof(Buffer) }),
      'select name, file from handouts where id = $1',
      [handout],
    );
    if (!found) throw problems.notFound();
    response.attachment(found.name);
    await sendMedium(db, found.file, request, response, { immutable: false });
  });
  return router;
}
