import type { RequestHandler } from 'express';
import { problems } from '../errors.ts';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Refuses changes that another site's page asks for, beside the cookie's SameSite=Lax. */
export const sameOrigin: RequestHandler = (request, _response, next) => {
  const origin = request.get('Origin');
  const foreign =
    request.get('Sec-Fetch-Site') === 'cross-site' || (origin !== undefined && hostOf(origin) !== request.get('Host'));
  if (!SAFE.has(request.method) && foreign) throw problems.otherOrigin();
  next();
};

const hostOf = (origin: string): string | undefined => (URL.canParse(origin) ? new URL(origin).host : undefined);
