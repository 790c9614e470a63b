import { heavyWork } from '../threads/heavy-work.ts';
import { threadOf } from '../threads/thread.ts';
import { DocumentError, documentErrors, type ReadDocument, type ReadDocumentFor, type ReadResult } from './document.ts';
import type { ReadAnswer, ReadTask } from './read-worker.ts';

const LIMITS = { maxOldGenerationSizeMb: 1024 };
const MAX_MILLISECONDS = 30_000;
const PDF_PACKAGES = ['pdfjs-dist/legacy/build/pdf.mjs', 'pdfjs-dist/legacy/build/pdf.worker.mjs'];

/**
 * Reads a document in a thread of its own, with limits of time and memory, so that no document can stall or end the server.
 * @throws DocumentError or TurnsTaken
 */
export const readDocumentApart: ReadDocumentFor = (who, bytes, fileName, encoding) =>
  heavyWork.take(who, async () => readInThread(await bytes(), fileName, encoding));

/** What is needed to read a PDF is larger than everything else together. */
function packagesFor(bytes: Uint8Array): string[] {
  const head = Buffer.from(bytes.subarray(0, 1024)).toString('latin1');
  return head.includes('%PDF-') ? PDF_PACKAGES : [];
}

const readInThread: ReadDocument = (bytes, fileName, encoding) =>
  new Promise<ReadResult>((resolve, reject) => {
    const worker = threadOf('documents', { bytes, fileName, encoding } satisfies ReadTask, {
      resourceLimits: LIMITS,
      preload: packagesFor(bytes),
    });
    const timer = setTimeout(() => {
      reject(documentErrors.tooSlow());
      void worker.terminate();
    }, MAX_MILLISECONDS);
    worker.on('message', (answer: ReadAnswer) => {
      if ('result' in answer) resolve(answer.result);
      else reject(new DocumentError(answer.refused));
    });
    worker.on('error', (error: NodeJS.ErrnoException) => {
      reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? documentErrors.tooLarge() : documentErrors.unreadable());
    });
    worker.on('exit', () => {
      clearTimeout(timer);
      reject(documentErrors.unreadable());
    });
  });
