import type { Encoding } from '../../contract/uploads.ts';
import { doTask } from '../threads/one-task.ts';
import { DocumentError } from './document.ts';
import { readDocument } from './read.ts';

export interface ReadTask {
  bytes: Uint8Array;
  fileName: string;
  encoding?: Encoding | undefined;
}

await doTask<ReadTask>(
  ({ bytes, fileName, encoding }, onPage) => readDocument(bytes, fileName, { encoding, onPage }),
  (error) => (error instanceof DocumentError ? error.message : undefined),
);
