import { Router } from 'express';
import { readMails } from '../../contract/mail.ts';
import type { Context } from '../context.ts';
import { problems } from '../errors.ts';
import { serve } from '../http/serve.ts';
import { isSteward } from '../school/people.ts';
import { mailFolder, readFolder } from './mailer.ts';
import { selectMails } from './queries.ts';

const MOST = 100;
/** Whole messages are longer. */
const MOST_STAND_IN = 20;

/** What the school's steward sees of its mail. */
export function mailRoutes(context: Context): Router {
  const router = Router();
  const { db, settings } = context;

  serve(router, context, readMails, 'own', async ({ person }) => {
    if (!(await isSteward(db, person.id))) throw problems.notAllowed();
    return {
      mails: await selectMails(db, MOST),
      standIn: settings.mail.server === undefined ? await readFolder(mailFolder(settings), MOST_STAND_IN) : null,
    };
  });
  return router;
}
