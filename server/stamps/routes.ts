import { fileTypeFromBuffer } from 'file-type';
import { Router } from 'express';
import { addStamp, readStamps, removeStamp } from '../../contract/stamps.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveOwnBytes } from '../http/serve.ts';
import { keepMedium } from '../media/media.ts';
import { sendMedium } from '../media/send.ts';
import { deleteStamp, insertStamp, selectStamp, selectStamps } from './queries.ts';

const PICTURES = ['image/png', 'image/jpeg', 'image/webp'];
const MAX_BYTES = 2 * 1024 * 1024;

/** A teacher's own pictures for stamping. Once stamped, a picture belongs to its remark too. */
export function stampRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readStamps, 'own', ({ person }) => selectStamps(db, person.id));

  serve(router, context, addStamp, 'own', async ({ params, person, file }) => {
    const { bytes, name } = file!;
    if (bytes.length > MAX_BYTES) throw problems.fileTooLarge(MAX_BYTES);
    const type = (await fileTypeFromBuffer(bytes))?.mime;
    if (!type || !PICTURES.includes(type)) throw problems.notAPicture();
    await db.transaction(async (tx) =>
      insertStamp(tx, { id: params.stamp, owner: person.id, name, file: await keepMedium(tx, bytes, type) }),
    );
    const stamp = await selectStamp(db, person.id, params.stamp);
    if (!stamp) throw problems.idTaken();
    return stamp;
  });

  serve(router, context, removeStamp, 'own', async ({ params, person }) => {
    await deleteStamp(db, person.id, params.stamp);
    return {};
  });

  serveOwnBytes(router, context, '/stamps/:stamp/picture/:sha256', async (request, response, person) => {
    const { stamp, sha256 } = request.params;
    const found = await selectStamp(db, person.id, stamp!);
    if (found?.sha256 !== sha256) throw problems.notFound();
    await sendMedium(db, Buffer.from(sha256!, 'hex'), request, response);
  });
  return router;
}
