import { doTask } from '../threads/one-task.ts';
import { BagError } from './bag.ts';
import { readBank } from './read.ts';

export interface ReadBankTask {
  bytes: Uint8Array;
}

await doTask<ReadBankTask>(
  ({ bytes }) => readBank(bytes),
  (error) => (error instanceof BagError ? error.message : undefined),
);
