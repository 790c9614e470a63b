import { parentPort, workerData } from 'node:worker_threads';
import type { Encoding } from '../../contract/uploads.ts';
import { DocumentError, type ReadResult } from './document.ts';
import { readDocument } from './read.ts';

export interface ReadTask {
  bytes: Uint8Array;
  fileName: string;
  encoding?: Encoding | undefined;
}

export type ReadAnswer = { result: ReadResult } | { refused: string };

const { bytes, fileName, encoding } = workerData as ReadTask;

try {
  parentPort!.postMessage({ result: await readDocument(bytes, fileName, encoding) } satisfies ReadAnswer);
} catch (error) {
  if (!(error instanceof DocumentError)) throw error;
  parentPort!.postMessage({ refused: error.message } satisfies ReadAnswer);
}
