import { anchorHolds, plain, type Anchor, type ReattachStatus } from '#core/anchor';
import { Router } from 'express';
import { placeEarlier, readEarlier, type EarlierRemark } from '../../contract/submissions.ts';
import { asTeacher } from '../access/visible.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectWhatHolds } from '../submissions/queries.ts';
import { selectEarlier, upsertReattachment } from './queries.ts';
import { reattachEarlier } from './reattach.ts';

/** Remarks on earlier versions of a work, at their places in this one. */
export function earlierRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, readEarlier, 'work.read', async ({ params, person, standing }) => {
    await reattachEarlier(db, params.submission, person.id);
    return selectEarlier(db, params.submission, { teacher: standing.teacher, person: person.id });
  });

  serve(router, context, placeEarlier, 'remark.reattach', async ({ params, body, person }) => {
    const { submission } = params;
    const before = await earlier(submission, params.remark);
    if (!before) throw problems.notFound();
    const folio = body.anchor && (await selectWhatHolds(db, submission, body.anchor));
    if (body.anchor && !(folio && anchorHolds(folio, body.anchor))) throw problems.anchorLost();
    await upsertReattachment(db, {
      remark: params.remark,
      submission,
      status: statusByHand(before.remark.anchor, body.anchor),
      anchor: body.anchor,
      confidence: 1,
      placedBy: person.id,
    });
    return (await earlier(submission, params.remark))!;
  });
  return router;

  async function earlier(submission: string, remark: string): Promise<EarlierRemark | undefined> {
    return (await selectEarlier(db, submission, asTeacher)).find((one) => one.remark.id === remark);
  }
}

function statusByHand(before: Anchor, after: Anchor | null): ReattachStatus {
  if (!after) return 'lost';
  if (before.type !== 'passage' || after.type !== 'passage') return 'moved';
  return plain(before.quote.exact) === plain(after.quote.exact) ? 'moved' : 'changed';
}
