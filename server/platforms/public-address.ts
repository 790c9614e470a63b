import { lookup } from 'node:dns/promises';
import ipaddr from 'ipaddr.js';
import { Agent, fetch as fetchWith, type RequestInit as RequestInitWith } from 'undici';
import { problems } from '../errors.ts';
import type { Settings } from '../settings.ts';

/*
 * Addresses that a steward enters, or a platform names, must not lead into this machine or the school's own network: whoever enters
 * them could ask things there that they cannot reach themselves. `VIVID_PRIVATE_PLATFORMS=true` allows it.
 */

/** Whether an IP address is one of the public internet (IANA special-purpose address registries, as ipaddr.js has them). */
export const isPublic = (address: string): boolean =>
  ipaddr.isValid(address) && ipaddr.process(address).range() === 'unicast';

const bare = (host: string): string => host.replace(/^\[(.*)\]$/u, '$1');

/** Where a name leads; nowhere where nobody knows it. */
const addressesOf = async (host: string): Promise<string[]> =>
  ipaddr.isValid(host) ? [host] : (await lookup(host, { all: true }).catch(() => [])).map(({ address }) => address);

/** @throws ProblemError for an address that leads to this machine or its network */
export async function refusePrivate(address: string): Promise<void> {
  const { hostname } = new URL(address);
  const found = await addressesOf(bare(hostname));
  if (!found.every(isPublic)) throw problems.privateAddress(hostname);
}

/** Looks where a name leads at the very moment of connecting, so that it cannot lead elsewhere a moment later. */
const outside = new Agent({
  connect: {
    lookup(host, options, done) {
      lookup(host, { ...options, all: true }).then(
        (found) => {
          const inside = found.find(({ address }) => !isPublic(address));
          if (inside) return done(new Error(`${host} leads to ${inside.address}`), []);
          if (options.all) return done(null, found);
          done(null, found[0]!.address, found[0]!.family);
        },
        (error: unknown) => done(error as NodeJS.ErrnoException, []),
      );
    },
  },
});

const fetchOutside: typeof fetch = async (address, init) => {
  const { hostname } = new URL(address instanceof Request ? address.url : address);
  const host = bare(hostname);
  if (ipaddr.isValid(host) && !isPublic(host)) throw new Error(`${host} is inside`);
  const { dispatcher: _, ...rest } = (init ?? {}) as RequestInitWith;
  return (await fetchWith(String(address), { ...rest, dispatcher: outside })) as unknown as Response;
};

/** What a platform is asked with. The simulated one is on this machine. */
export const fetchFor = ({ privatePlatforms }: Pick<Settings, 'privatePlatforms'>, standIn: boolean): typeof fetch =>
  standIn || privatePlatforms ? fetch : fetchOutside;
