import { parentPort, workerData } from 'node:worker_threads';
import type { Incoming, Outgoing } from '#core/oneroster';
import { packOneRoster, unpackOneRoster } from './packing.ts';

export type PackTask = { pack: Outgoing } | { unpack: Uint8Array };
export type PackAnswer = Uint8Array | Incoming;

const task = workerData as PackTask;
parentPort!.postMessage(
  ('pack' in task ? packOneRoster(task.pack) : unpackOneRoster(task.unpack)) satisfies PackAnswer,
);
