import { wordlessLeaves, type Folio } from '#core/folio';
import type { Database } from '../db/database.ts';
import { findMedium, readWholeMedium } from '../media/media.ts';
import { selectFile, selectFolio } from '../submissions/queries.ts';
import { claimWork, endWork, keepLeaf, MOST_ATTEMPTS, recoverWorks, selectLanguage, type ClaimedWork } from './jobs.ts';
import type { Recogniser } from './tesseract.ts';

/** Reads the words in scanned works, one work after the other, in the background. */
export interface RecognitionQueue {
  /** Whether words are read on this machine at all. */
  on: boolean;
  /** There may be something to do. */
  wake(): void;
  stop(): Promise<void>;
}

interface Options {
  db: Database;
  recogniser: Recogniser | undefined;
  /** Seconds after which a job that says it is running is given up by others; 0 where no other process works on this database. */
  staleAfter: number;
}

const LOOK_AGAIN_MILLISECONDS = 60_000;
/** So that one work of many pages does not hold up everybody else's. */
const MOST_LEAVES = 60;

export function recognitionQueue({ db, recogniser, staleAfter }: Options): RecognitionQueue {
  if (!recogniser) return { on: false, wake: () => undefined, stop: () => Promise.resolve() };
  const ending = new AbortController();
  const { signal } = ending;
  let working: Promise<void> | undefined;
  let wanted = false;

  async function workOff(): Promise<void> {
    while (!signal.aborted) {
      wanted = false;
      const work = await claimWork(db);
      if (work) await read(work);
      else if (!wanted) return;
    }
  }

  async function read({ submission, attempts }: ClaimedWork): Promise<void> {
    try {
      const folio = await selectFolio(db, submission);
      const language = await selectLanguage(db, submission);
      for (const leaf of folio ? wordlessLeaves(folio).slice(0, MOST_LEAVES) : []) {
        const lines = await linesOf(submission, folio!, leaf, language);
        await keepLeaf(db, submission, { leaf, lines });
      }
      await endWork(db, submission, 'done');
    } catch (error) {
      if (signal.aborted) return void (await endWork(db, submission, 'queued').catch(() => undefined));
      process.stderr.write(`The words of a scanned work could not be read: ${String(error)}\n`);
      await endWork(db, submission, attempts >= MOST_ATTEMPTS ? 'failed' : 'queued').catch(() => undefined);
    }
  }

  async function linesOf(submission: string, folio: Folio, index: number, language: string) {
    const leaf = folio.leaves[index]!;
    if (leaf.kind === 'page')
      return recogniser!.page(await bytesOf('submission_files', submission, leaf.file), leaf.page, {
        language,
        signal,
      });
    if (leaf.kind !== 'picture') return [];
    return recogniser!.picture(await bytesOf('submission_pictures', submission, leaf.picture), { language, signal });
  }

  async function bytesOf(
    table: 'submission_files' | 'submission_pictures',
    submission: string,
    position: number,
  ): Promise<Buffer> {
    const found = await selectFile(db, table, submission, position);
    const medium = found && (await findMedium(db, found.file));
    if (!medium) throw new Error('A file of the work is gone');
    return readWholeMedium(db, found.file, medium);
  }

  function wake(): void {
    wanted = true;
    if (working || signal.aborted) return;
    working = workOff()
      .catch((error: unknown) => void process.stderr.write(`The queue of scanned works stopped: ${String(error)}\n`))
      .finally(() => (working = undefined));
  }

  const recover = (): Promise<void> =>
    recoverWorks(db, staleAfter).then(wake, () => {
      // The database will be there again at the next look.
    });
  const timer = setInterval(() => void (staleAfter > 0 ? recover() : wake()), LOOK_AGAIN_MILLISECONDS);
  timer.unref();
  void recover();

  return {
    on: true,
    wake,
    stop: async () => {
      ending.abort();
      clearInterval(timer);
      await working;
    },
  };
}
