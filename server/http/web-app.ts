import { Router, type RequestHandler } from 'express';
import { existsSync } from 'node:fs';
import sirv from 'sirv';
import { beside } from './serve.ts';

const YEAR = 365 * 24 * 60 * 60;
const ASSETS = '/assets/';

/**
 * The built app: files with a hash in their name are cached for ever, and every other address is the app's to route.
 * What the build has compressed goes out as it lies there.
 */
export function webApp(folder: string): Router {
  const router = Router();
  router.use(
    beside(
      sirv(folder, {
        // A server that is started before the app is built looks again each time.
        dev: !existsSync(folder),
        brotli: true,
        gzip: true,
        etag: true,
        single: true,
        ignores: [new RegExp(`^${ASSETS}`)],
        setHeaders: (response, path) =>
          response.setHeader(
            'Cache-Control',
            path.startsWith(ASSETS) ? `public, max-age=${YEAR}, immutable` : 'no-cache',
          ),
      }) as RequestHandler,
    ),
  );
  return router;
}
