import { Router } from 'express';
import {
  changeRemark,
  makeRemark as makeRemarkEndpoint,
  putRemarkAside,
  remarkFile,
  remarkStamp,
  dealWithRemark,
  takeSuggestion,
  type Remark,
} from '../../contract/remarks.ts';
import { holdForChange } from '../access/work-state.ts';
import { asTeacher, type Reader } from '../access/visible.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { sendMedium } from '../media/send.ts';
import { changeWords } from './change.ts';
import { makeRemark } from './make.ts';
import { selectAttached, selectRemark, updateAside, updateTaken, updateDealt } from './queries.ts';

export function remarkRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  const answer = async (id: string, reader: Reader): Promise<Remark> => {
    const remark = await selectRemark(db, id, reader);
    if (!remark) throw problems.notFound();
    return remark;
  };

  serve(router, context, makeRemarkEndpoint, 'remark.make', ({ params, body, files, person }) =>
    makeRemark(context, {
      id: params.remark,
      submission: params.submission,
      author: person.id,
      remark: body,
      files,
    }),
  );

  serve(router, context, changeRemark, 'remark.change', async ({ params, body: { was, ...change } }) => {
    await db.transaction((tx) => changeWords(tx, params.remark, change, was));
    return answer(params.remark, asTeacher);
  });

  serve(router, context, putRemarkAside, 'remark.putAside', async ({ params, body }) => {
    await db.transaction(async (tx) => {
      await holdForChange(tx, 'remark', params.remark);
      await updateAside(tx, params.remark, body.aside);
    });
    return answer(params.remark, asTeacher);
  });

  serve(router, context, takeSuggestion, 'suggestion.take', async ({ params, body, person }) => {
    if (!(await updateTaken(db, params.remark, body.taken))) throw problems.noSuggestion();
    return answer(params.remark, { teacher: false, person: person.id });
  });

  serve(router, context, dealWithRemark, 'remark.dealWith', async ({ params, body, person }) => {
    await updateDealt(db, params.remark, body.dealt);
    return answer(params.remark, { teacher: false, person: person.id });
  });

  serveBytes(router, context, remarkFile, 'remark.read', async ({ remark, sha256 }, request, response) => {
    const attached = await selectAttached(db, remark);
    if (!attached?.file || attached.file.toString('hex') !== sha256) throw problems.notFound();
    response.attachment(attached.name ?? 'file');
    await sendMedium(db, attached.file, request, response);
  });

  serveBytes(router, context, remarkStamp, 'remark.read', async ({ remark, sha256 }, request, response) => {
    const stamp = (await selectAttached(db, remark))?.stamp;
    if (stamp?.toString('hex') !== sha256) throw problems.notFound();
    await sendMedium(db, stamp!, request, response);
  });
  return router;
}
