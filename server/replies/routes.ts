import { Router } from 'express';
import { makeReply, settleRemark } from '../../contract/remarks.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectSpokenLanguage } from '../languages/queries.ts';
import { incoming, keepRecording, wake } from '../recordings/make.ts';
import { selectRemark, selectRemarkPlace, updateSettled } from '../remarks/queries.ts';
import { insertReply } from './queries.ts';

export function replyRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, makeReply, 'reply.make', async ({ params, body, file, person, standing }) => {
    const heard = body.recording && (await incoming(body.recording, file));
    if (!heard && body.text === '') throw problems.replyEmpty();
    const { submission } = (await selectRemarkPlace(db, params.remark))!;
    const language = await selectSpokenLanguage(db, person.id, submission);
    await db.transaction(async (tx) => {
      const recording = heard && (await keepRecording(tx, heard, { owner: person.id, language }));
      await insertReply(tx, { id: params.reply, remark: params.remark, author: person.id, text: body.text, recording });
      await updateSettled(tx, params.remark, null);
    });
    wake(context);
    const remark = await selectRemark(db, params.remark, { teacher: standing.teacher, person: person.id });
    if (!remark) throw problems.notFound();
    return remark;
  });
  serve(router, context, settleRemark, 'thread.settle', async ({ params, body, person, standing }) => {
    await updateSettled(db, params.remark, body.settled ? person.id : null);
    const remark = await selectRemark(db, params.remark, { teacher: standing.teacher, person: person.id });
    if (!remark) throw problems.notFound();
    return remark;
  });
  return router;
}
