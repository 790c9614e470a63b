import { Router } from 'express';
import {
  changeRemark,
  changeSound,
  keepOriginal,
  makeRemark as makeRemarkEndpoint,
  putRemarkAside,
  reportHeard,
  takeSuggestion,
  type Remark,
} from '../../contract/remarks.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve, serveBytes } from '../http/serve.ts';
import { keepMedium } from '../media/media.ts';
import { sendMedium } from '../media/send.ts';
import { soundType } from '../media/sound-type.ts';
import { changeContent, changeRendition } from './change.ts';
import { makeRemark } from './make.ts';
import {
  selectAttached,
  selectOriginal,
  selectRemark,
  selectSound,
  selectStampPicture,
  updateAside,
  updateOriginal,
  updateTaken,
  upsertListening,
  type Reader,
} from './queries.ts';

export function remarkRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;
  const answer = async (id: string, reader: Reader = 'teacher'): Promise<Remark> => {
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

  serve(router, context, changeRemark, 'remark.change', async ({ params, body }) => {
    await db.transaction((tx) => changeContent(tx, params.remark, body));
    return answer(params.remark);
  });

  serve(router, context, changeSound, 'remark.change', async ({ params, body, file }) => {
    await db.transaction((tx) => changeRendition(tx, params.remark, { ...body, bytes: file!.bytes }));
    return answer(params.remark);
  });

  serve(router, context, keepOriginal, 'remark.change', async ({ params, file }) => {
    const type = await soundType(file!.bytes);
    await db.transaction(async (tx) => updateOriginal(tx, params.remark, await keepMedium(tx, file!.bytes, type)));
    return {};
  });

  serve(router, context, putRemarkAside, 'remark.putAside', async ({ params, body }) => {
    await updateAside(db, params.remark, body.aside);
    return answer(params.remark);
  });

  serve(router, context, reportHeard, 'remark.reportHeard', async ({ params, body, person }) => {
    await upsertListening(db, params.remark, person.id, body.finished);
    return answer(params.remark, 'student');
  });

  serve(router, context, takeSuggestion, 'suggestion.take', async ({ params, body }) => {
    if (!(await updateTaken(db, params.remark, body.taken))) throw problems.noSuggestion();
    return answer(params.remark, 'student');
  });

  serveBytes(router, context, '/remarks/:remark/sound/:sha256', 'remark.listen', async (request, response) => {
    const { remark, sha256 } = request.params;
    const sound = await selectSound(db, 'remarks', remark!);
    if (sound?.toString('hex') !== sha256) throw problems.notFound();
    await sendMedium(db, sound!, request, response);
  });

  serveBytes(router, context, '/remarks/:remark/original', 'remark.readOriginal', async (request, response) => {
    const sound = await selectOriginal(db, request.params.remark!);
    if (!sound) throw problems.notFound();
    await sendMedium(db, sound, request, response, { immutable: false });
  });

  serveBytes(router, context, '/remarks/:remark/file/:sha256', 'remark.listen', async (request, response) => {
    const { remark, sha256 } = request.params;
    const attached = await selectAttached(db, remark!);
    if (!attached?.file || attached.file.toString('hex') !== sha256) throw problems.notFound();
    response.attachment(attached.file_name ?? 'file');
    await sendMedium(db, attached.file, request, response);
  });

  serveBytes(router, context, '/remarks/:remark/stamp/:sha256', 'remark.listen', async (request, response) => {
    const { remark, sha256 } = request.params;
    const picture = await selectStampPicture(db, remark!);
    if (picture?.toString('hex') !== sha256) throw problems.notFound();
    await sendMedium(db, picture!, request, response);
  });
  return router;
}
