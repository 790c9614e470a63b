import express, { Router } from 'express';
import path from 'node:path';

const YEAR = 365 * 24 * 60 * 60 * 1000;

/** The built app: files with a hash in their name are cached for ever, and every other address is the app's to route. */
export function webApp(folder: string): Router {
  const router = Router();
  router.use(
    '/assets',
    express.static(path.join(folder, 'assets'), { immutable: true, maxAge: YEAR, fallthrough: false }),
  );
  router.use(express.static(folder, { index: false, maxAge: 0 }));
  router.get('/{*any}', (_request, response) => {
    response.set('Cache-Control', 'no-cache').sendFile(path.join(folder, 'index.html'));
  });
  return router;
}
