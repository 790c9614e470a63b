import type { Request, RequestHandler } from 'express';
import { problems } from '../errors.ts';
import type { Settings } from '../settings.ts';

const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** Refuses changes that another site's page asks for, beside the cookie's SameSite=Lax. */
export const sameOrigin =
  (settings: Pick<Settings, 'secureCookies'>): RequestHandler =>
  (request, _response, next) => {
    const origin = request.get('Origin');
    const foreign =
      request.get('Sec-Fetch-Site') === 'cross-site' ||
      (origin !== undefined && origin !== ownOrigin(request, settings));
    if (!SAFE.has(request.method) && foreign) throw problems.otherOrigin();
    next();
  };

/**
 * With its scheme: a page that came without encryption is another one, and anybody on the line may have made it. Where cookies go over
 * https only, people have come by it, whatever stands in between.
 */
function ownOrigin(request: Request, { secureCookies }: Pick<Settings, 'secureCookies'>): string | undefined {
  const own = `${secureCookies ? 'https' : request.protocol}://${request.get('Host') ?? ''}`;
  return URL.canParse(own) ? new URL(own).origin : undefined;
}
