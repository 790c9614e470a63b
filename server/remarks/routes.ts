import { Router } from 'express';
import {
  changeRemark,
  makeRemark as makeRemarkEndpoint,
  mendTranscript,
  putRemarkAside,
  reportHeard,
  type Remark,
} from '../../contract/remarks.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { sendMedium } from '../media/send.ts';
import { makeRemark } from './make.ts';
import { selectRemark, selectSound, updateAside, updateKind, upsertListening, upsertTranscript } from './queries.ts';

export function remarkRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  const answer = async (id: string): Promise<Remark> => {
    const remark = await selectRemark(db, id);
    if (!remark) throw problems.notFound();
    return remark;
  };

  serve(router, context, makeRemarkEndpoint, 'remark.make', ({ params, body, file, person }) =>
    makeRemark(context, {
      id: params.remark,
      submission: params.submission,
      author: person.id,
      remark: body,
      bytes: file!.bytes,
    }),
  );

  serve(router, context, changeRemark, 'remark.change', async ({ params, body }) => {
    await updateKind(db, params.remark, body.kind);
    return answer(params.remark);
  });

  serve(router, context, putRemarkAside, 'remark.putAside', async ({ params, body }) => {
    await updateAside(db, params.remark, body.aside);
    return answer(params.remark);
  });

  serve(router, context, mendTranscript, 'transcript.mend', async ({ params, body }) => {
    await upsertTranscript(db, params.remark, { ...body, words: [], source: 'person' });
    return answer(params.remark);
  });

  serve(router, context, reportHeard, 'remark.reportHeard', async ({ params, body, person }) => {
    await upsertListening(db, params.remark, person.id, body.finished);
    return answer(params.remark);
  });

  serveBytes(router, context, '/remarks/:remark/sound/:sha256', 'remark.listen', async (request, response) => {
    const { remark, sha256 } = request.params;
    const sound = await selectSound(db, 'remarks', remark!);
    if (sound?.toString('hex') !== sha256) throw problems.notFound();
    await sendMedium(db, sound!, request, response);
  });
  return router;
}
