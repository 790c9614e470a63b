import type { Incoming, Outgoing } from '#core/oneroster';
import { doTask } from '../threads/one-task.ts';
import { packOneRoster, unpackOneRoster } from './packing.ts';

export type PackTask = { pack: Outgoing } | { unpack: Uint8Array };
export type PackAnswer = Uint8Array | Incoming;

await doTask<PackTask>((task): PackAnswer =>
  'pack' in task ? packOneRoster(task.pack) : unpackOneRoster(task.unpack),
);
