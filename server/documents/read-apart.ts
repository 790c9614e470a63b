import { heavyWork } from '../threads/heavy-work.ts';
import { OverLimit, runTask, TaskRefused } from '../threads/one-task.ts';
import { DocumentError, documentErrors, type PagesRead, type ReadDocumentFor, type ReadResult } from './document.ts';
import type { ReadTask } from './read-worker.ts';

/** On a busy machine this is minutes; the longest that may be handed in takes a third of it. */
const LIMITS = { memory: 1024, cpu: 30 };
const PDF_PACKAGES = ['pdfjs-dist/legacy/build/pdf.mjs', 'pdfjs-dist/legacy/build/pdf.worker.mjs'];

/**
 * Reads a document in a thread of its own, with limits of CPU time and memory, so that no document can stall or end the server.
 * @throws DocumentError or TurnsTaken
 */
export const readDocumentApart: ReadDocumentFor = (who, bytes, fileName, { encoding, onPage } = {}) =>
  heavyWork.take(who, async () => readInThread({ bytes: await bytes(), fileName, encoding }, onPage));

/** What is needed to read a PDF is larger than everything else together. */
function packagesFor(bytes: Uint8Array): string[] {
  const head = Buffer.from(bytes.subarray(0, 1024)).toString('latin1');
  return head.includes('%PDF-') ? PDF_PACKAGES : [];
}

async function readInThread(task: ReadTask, onProgress?: (pages: PagesRead) => void): Promise<ReadResult> {
  try {
    return await runTask('documents', task, { ...LIMITS, preload: packagesFor(task.bytes), onProgress });
  } catch (error) {
    if (error instanceof TaskRefused) throw new DocumentError(error.message);
    if (!(error instanceof OverLimit)) throw documentErrors.unreadable();
    throw error.limit === 'memory' ? documentErrors.tooLarge() : documentErrors.tooSlow();
  }
}
