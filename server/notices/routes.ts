import { Router } from 'express';
import { markNoticesSeen, readNotices, setNotices } from '../../contract/notices.ts';
import type { Context } from '../context.ts';
import { serve } from '../http/serve.ts';
import { selectNews, selectSettings, updateSeen, upsertSettings } from './queries.ts';

const TWO_WEEKS = 14 * 24 * 3600 * 1000;

/** What is new for somebody, and how they want to be told. */
export function noticeRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;

  serve(router, context, readNotices, 'own', async ({ person }) => ({
    ...(await selectSettings(db, person.id)),
    sends: settings.mail.server !== undefined,
    news: await selectNews(db, person.id, new Date(Date.now() - TWO_WEEKS).toISOString()),
  }));
  serve(router, context, setNotices, 'own', async ({ body, person }) => {
    await upsertSettings(db, person.id, body);
    return body;
  });
  serve(router, context, markNoticesSeen, 'own', async ({ person }) => ({ seenAt: await updateSeen(db, person.id) }));
  return router;
}
