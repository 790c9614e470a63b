import type { Incoming, IncomingClass, Outgoing } from '#core/oneroster';
import { once } from 'node:events';
import { problems } from '../errors.ts';
import { heavyWork } from '../threads/heavy-work.ts';
import { threadOf } from '../threads/thread.ts';
import type { PackTask } from './pack-worker.ts';

const LIMITS = { maxOldGenerationSizeMb: 512 };

async function apart<Result>(task: PackTask): Promise<Result> {
  const worker = threadOf('oneRoster', task, { resourceLimits: LIMITS });
  try {
    const [answer] = (await once(worker, 'message')) as [Result];
    return answer;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ERR_WORKER_OUT_OF_MEMORY') throw error;
    throw problems.oneRosterFile('This file is larger than a course can be. Nothing was read.');
  } finally {
    await worker.terminate();
  }
}

export const packApart = (who: string, pack: Outgoing): Promise<Uint8Array> =>
  heavyWork.take(who, () => apart<Uint8Array>({ pack }));

/** @throws ProblemError where nothing of it can be taken */
export async function unpackApart(who: string, read: () => Promise<Uint8Array>): Promise<IncomingClass[]> {
  const incoming = await heavyWork.take(who, async () => apart<Incoming>({ unpack: await read() }));
  if ('problem' in incoming) throw problems.oneRosterFile(incoming.problem);
  return incoming.classes;
}
