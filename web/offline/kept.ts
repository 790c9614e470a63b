import { urlOf } from '#contract/endpoint';

/*
 * What was returned and opened once is kept in this browser, so that it can be heard again without a network. The worker of this
 * folder answers from here where the server does not.
 */
export const KEPT = 'returned';

/** What is asked for at the addresses of one work. */
export const ofWork = (submission: string): string =>
  urlOf({ bytesAt: '/submissions/:submission/' } as const, { submission });

const canKeep = (): boolean => 'caches' in window && 'serviceWorker' in navigator;

/** Keeps what is at these addresses, one after another: nobody waits for it, and what is there already is asked for only where it may change. */
export async function keepHere(fresh: readonly string[], lasting: readonly string[]): Promise<void> {
  if (!canKeep()) return;
  const cache = await caches.open(KEPT);
  for (const url of fresh) await cache.add(url).catch(() => undefined);
  for (const url of lasting) if (!(await cache.match(url))) await cache.add(url).catch(() => undefined);
}

/** A work that was taken back, or is not there any more. */
export async function forgetWork(submission: string): Promise<void> {
  if (!canKeep()) return;
  const cache = await caches.open(KEPT);
  for (const request of await cache.keys())
    if (new URL(request.url).pathname.startsWith(ofWork(submission))) await cache.delete(request);
}

/** Whoever comes after on this machine finds nothing. */
export const forgetAllKept = async (): Promise<void> => {
  if (canKeep()) await caches.delete(KEPT);
};
