import { threadOf } from '../threads/thread.ts';
import { DocumentError, documentErrors, type ReadDocument, type ReadResult } from './document.ts';
import type { ReadAnswer, ReadTask } from './read-worker.ts';

const LIMITS = { maxOldGenerationSizeMb: 1024 };
const MAX_MILLISECONDS = 30_000;

/**
 * Reads a document in a thread of its own, with limits of time and memory, so that no document can stall or end the server.
 * @throws DocumentError
 */
export const readDocumentApart: ReadDocument = (bytes, fileName) =>
  new Promise<ReadResult>((resolve, reject) => {
    const worker = threadOf(
      new URL('./read-worker.ts', import.meta.url),
      { bytes, fileName } satisfies ReadTask,
      LIMITS,
    );
    const timer = setTimeout(() => {
      reject(documentErrors.tooSlow());
      void worker.terminate();
    }, MAX_MILLISECONDS);
    worker.on('message', (answer: ReadAnswer) => {
      if ('result' in answer) resolve(answer.result);
      else reject(new DocumentError(answer.refused));
    });
    worker.on('error', (error: NodeJS.ErrnoException) => {
      reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? documentErrors.tooLarge() : documentErrors.broken());
    });
    worker.on('exit', () => {
      clearTimeout(timer);
      reject(documentErrors.broken());
    });
  });
