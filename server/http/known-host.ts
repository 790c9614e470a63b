import type { RequestHandler } from 'express';
import { isIP } from 'node:net';
import { hostname } from 'node:os';
import { problems } from '../errors.ts';
import type { Settings } from '../settings.ts';

/**
 * Answers under its own names only. Otherwise a foreign website could let its own name lead here (DNS rebinding) and ask from the
 * browser of somebody who can reach this server. A bare address is no name, so nobody can let it lead anywhere.
 */
export function knownHost({ host, hosts }: Pick<Settings, 'host' | 'hosts'>): RequestHandler {
  const known = new Set(['localhost', host, hostname(), ...hosts].map((name) => name.toLowerCase()));
  return (request, _response, next) => {
    const asked = request.get('Host') ?? '';
    const name = URL.canParse(`http://${asked}`) ? new URL(`http://${asked}`).hostname : '';
    if (known.has(name) || isIP(name.replace(/^\[(.*)\]$/u, '$1')) > 0) return next();
    throw problems.unknownHost(asked);
  };
}
