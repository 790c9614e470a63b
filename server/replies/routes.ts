import { Router } from 'express';
import { makeReply, type NewReply } from '../../contract/remarks.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes, type UploadedFile } from '../http/serve.ts';
import { sendMedium } from '../media/send.ts';
import { soundType } from '../media/sound-type.ts';
import { selectRemark, selectSound } from '../remarks/queries.ts';
import { insertReply, type SpokenPart } from './queries.ts';

export function replyRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, makeReply, 'reply.make', async ({ params, body, file, person, standing }) => {
    const spoken = body.sound && (await spokenPart(body.sound, file));
    if (!spoken && body.text === '') throw problems.replyEmpty();
    await db.transaction((tx) =>
      insertReply(tx, { id: params.reply, remark: params.remark, author: person.id, text: body.text, spoken }),
    );
    const remark = await selectRemark(db, params.remark, standing.teacher ? 'teacher' : 'student');
    if (!remark) throw problems.notFound();
    return remark;
  });

  serveBytes(router, context, '/replies/:reply/sound/:sha256', 'reply.listen', async (request, response) => {
    const { reply, sha256 } = request.params;
    const sound = await selectSound(db, 'replies', reply!);
    if (sound?.toString('hex') !== sha256) throw problems.notFound();
    await sendMedium(db, sound!, request, response);
  });
  return router;
}

async function spokenPart(sound: NonNullable<NewReply['sound']>, file: UploadedFile | undefined): Promise<SpokenPart> {
  if (!file) throw problems.fileMissing();
  return { bytes: file.bytes, mediaType: await soundType(file.bytes), duration: sound.duration, peaks: sound.peaks };
}
