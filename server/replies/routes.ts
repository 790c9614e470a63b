import { Router } from 'express';
import { askAbout, makeReply, settleRemark, type Remark } from '../../contract/remarks.ts';
import type { NewReply } from '../../contract/replies.ts';
import type { Context } from '../context.ts';
import type { Queries } from '../db/database.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectSpokenLanguage } from '../languages/queries.ts';
import { incoming, keepRecording, wake } from '../recordings/make.ts';
import { openThread } from '../remarks/make.ts';
import { selectRemark, selectRemarkPlace, updateSettled } from '../remarks/queries.ts';
import type { UploadedFile } from '../uploads/uploaded.ts';
import { insertReply } from './queries.ts';

interface ReplyRequest extends NewReply {
  id: string;
  remark: string;
  submission: string;
  author: string;
  file: UploadedFile | undefined;
}

export function replyRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  /** @param open what must be there before it, in the same transaction */
  async function keepReply(reply: ReplyRequest, open?: (tx: Queries) => Promise<void>): Promise<void> {
    const { id, remark, submission, author, text, file } = reply;
    const heard = reply.recording && (await incoming(reply.recording, file));
    if (!heard && text === '') throw problems.replyEmpty();
    const language = await selectSpokenLanguage(db, author, submission);
    await db.transaction(async (tx) => {
      await open?.(tx);
      const recording = heard && (await keepRecording(tx, heard, { owner: author, language }));
      await insertReply(tx, { id, remark, author, text, recording });
      await updateSettled(tx, remark, null);
    });
    wake(context);
  }

  async function shown(remark: string, teacher: boolean, person: string): Promise<Remark> {
    const found = await selectRemark(db, remark, { teacher, person });
    if (!found) throw problems.notFound();
    return found;
  }

  serve(router, context, makeReply, 'reply.make', async ({ params, body, file, person, standing }) => {
    const { submission } = (await selectRemarkPlace(db, params.remark))!;
    await keepReply({ ...body, id: params.reply, remark: params.remark, submission, author: person.id, file });
    return shown(params.remark, standing.teacher, person.id);
  });
  serve(router, context, askAbout, 'work.ask', async ({ params, body, file, person }) => {
    const { submission, remark } = params;
    const { reply: id, criterion, ...said } = body;
    await keepReply({ ...said, id, remark, submission, author: person.id, file }, (tx) =>
      openThread(tx, { id: remark, submission, author: person.id, criterion }),
    );
    return shown(remark, false, person.id);
  });
  serve(router, context, settleRemark, 'thread.settle', async ({ params, body, person, standing }) => {
    await updateSettled(db, params.remark, body.settled ? person.id : null);
    return shown(params.remark, standing.teacher, person.id);
  });
  return router;
}
