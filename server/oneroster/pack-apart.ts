import type { Incoming, IncomingClass, Outgoing } from '#core/oneroster';
import { problems } from '../errors.ts';
import { heavyWork } from '../threads/heavy-work.ts';
import { OverLimit, runTask } from '../threads/one-task.ts';
import type { PackTask } from './pack-worker.ts';

const LIMITS = { memory: 512, cpu: 30 };

async function apart<Result>(task: PackTask): Promise<Result> {
  try {
    return await runTask<Result>('oneRoster', task, LIMITS);
  } catch (error) {
    throw error instanceof OverLimit ? problems.oneRosterFile(TOO_LARGE) : error;
  }
}

const TOO_LARGE = 'This file is larger than a course can be. Nothing was read.';

export const packApart = (who: string, pack: Outgoing): Promise<Uint8Array> =>
  heavyWork.take(who, () => apart<Uint8Array>({ pack }));

/** @throws ProblemError where nothing of it can be taken */
export async function unpackApart(who: string, read: () => Promise<Uint8Array>): Promise<IncomingClass[]> {
  const incoming = await heavyWork.take(who, async () => apart<Incoming>({ unpack: await read() }));
  if ('problem' in incoming) throw problems.oneRosterFile(incoming.problem);
  return incoming.classes;
}
