import { Router } from 'express';
import { setMarginKey } from '../../contract/margin-key.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { selectKindsInUse, updateMarginKey } from './queries.ts';

export function marginKeyRoutes(context: Context): Router {
  const router = Router();
  const { db } = context;

  serve(router, context, setMarginKey, 'course.set', ({ params, body: { key } }) =>
    db.transaction(async (tx) => {
      await tx.query('select from courses where id = $1 for update', [params.course]);
      const missing = (await selectKindsInUse(tx, params.course)).find(
        ({ kind }) => !key.some((entry) => entry.kind === kind),
      );
      if (missing) throw problems.kindInUse(missing.remarks);
      await updateMarginKey(tx, params.course, key);
      return { key };
    }),
  );
  return router;
}
