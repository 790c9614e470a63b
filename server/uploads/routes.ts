import { Server, type ServerOptions } from '@tus/server';
import { randomUUID } from 'node:crypto';
import { Router, type Request, type RequestHandler } from 'express';
import { readUploadUse, resumableUploads } from '../../contract/uploads.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { asProblem } from '../http/problem-handler.ts';
import { guard, largestOf, serve } from '../http/serve.ts';
import type { SignedIn } from '../http/person-of.ts';
import { refuseTooMuch } from './day.ts';
import { selectSentToday } from './queries.ts';
import { TusStore } from './tus-store.ts';

/** Where large files come in, piece by piece; what they are for is asked later, by the request that names them. */
export function uploadRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;
  const tus = new Server({
    path: resumableUploads.uploadsAt,
    datastore: new TusStore(db),
    maxSize: largestOf(settings).recording,
    allowedOrigins: () => false,
    generateUrl: (_request, { id }) => `/api${resumableUploads.uploadsAt}/${id}`,
    namingFunction: () => randomUUID(),
    onUploadCreate: async (request, { size = 0 }) => {
      const owner = whoAsks(request).id;
      await refuseTooMuch(context, owner, size);
      return { metadata: { owner } };
    },
    onResponseError: (_request, error) => {
      const tooLarge = !(error instanceof Error) && error.status_code === 413;
      if (!(error instanceof Error) && !tooLarge) return undefined;
      const { problem } = tooLarge ? problems.fileTooLarge(largestOf(settings).recording) : asProblem(error);
      return { status_code: problem.status, body: JSON.stringify(problem) };
    },
  });
  const answer: RequestHandler = (request, response) => tus.handle(request, response);

  router.post(resumableUploads.uploadsAt, guard(context, 'own'), answer);
  const one = router.route(resumableUploads.uploadAt);
  one.head(guard(context, 'upload.send'), answer);
  one.patch(guard(context, 'upload.send'), answer);
  one.delete(guard(context, 'upload.send'), answer);

  serve(router, context, readUploadUse, 'own', async ({ person }) => ({
    sent: await selectSentToday(db, person.id),
    most: settings.maxDayBytes,
    room: person.teaches ? await db.room() : null,
  }));
  return router;
}

type TusRequest = Parameters<NonNullable<ServerOptions['onUploadCreate']>>[0];

/** The guard has found out. */
const whoAsks = ({ runtime }: TusRequest): SignedIn => {
  const { res } = runtime!.node!.req as unknown as Request;
  return (res!.locals as { person: SignedIn }).person;
};
