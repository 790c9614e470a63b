import { parentPort, workerData } from 'node:worker_threads';
import { BagError } from './bag.ts';
import { readBank, type ReadBank } from './read.ts';

export interface ReadBankTask {
  bytes: Uint8Array;
}
export type ReadBankAnswer = { result: ReadBank } | { refused: string };

const { bytes } = workerData as ReadBankTask;
try {
  parentPort!.postMessage({ result: readBank(bytes) } satisfies ReadBankAnswer);
} catch (error) {
  if (!(error instanceof BagError)) throw error;
  parentPort!.postMessage({ refused: error.message } satisfies ReadBankAnswer);
}
