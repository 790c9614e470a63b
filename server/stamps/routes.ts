import { fileTypeFromBuffer } from 'file-type';
import { Router } from 'express';
import { addStamp, readStamps, removeStamp, stampPicture } from '../../contract/stamps.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { keepUploaded } from '../media/media.ts';
import { sendMedium } from '../media/send.ts';
import { deleteStamp, insertStamp, selectStamp, selectStamps } from './queries.ts';

const PICTURES = ['image/png', 'image/jpeg', 'image/webp'];

/** A teacher's own pictures for stamping. Once stamped, a picture belongs to its remark too. */
export function stampRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readStamps, 'own', ({ person }) => selectStamps(db, person.id));

  serve(router, context, addStamp, 'own', async ({ params, person, file }) => {
    const { head, name } = file!;
    const type = (await fileTypeFromBuffer(head))?.mime;
    if (!type || !PICTURES.includes(type)) throw problems.notAPicture();
    await db.transaction(async (tx) =>
      insertStamp(tx, { id: params.stamp, owner: person.id, name, file: await keepUploaded(tx, file!, type) }),
    );
    const stamp = (await selectStamps(db, person.id)).find(({ id }) => id === params.stamp);
    if (!stamp) throw problems.idTaken();
    return stamp;
  });

  serve(router, context, removeStamp, 'stamp.remove', async ({ params }) => {
    await deleteStamp(db, params.stamp);
    return {};
  });

  serveBytes(router, context, stampPicture, 'stamp.read', async ({ stamp, sha256 }, request, response) => {
    const found = await selectStamp(db, stamp);
    if (found?.sha256 !== sha256) throw problems.notFound();
    await sendMedium(db, Buffer.from(sha256, 'hex'), request, response);
  });
  return router;
}
