import { parentPort, workerData } from 'node:worker_threads';
import { cpuSeconds, systemThread } from './cpu-time.ts';
import { threadOf } from './thread.ts';
import type { WORKERS } from './workers.ts';

/** What a thread says: first that it has begun, in the end what came of its task. */
type Said = { begun: number | undefined } | { progress: unknown } | { result: unknown } | { refused: string };

/** What one task may use. */
export interface Limits {
  /** Megabytes. */
  memory: number;
  /** Seconds of CPU, counted from when the thread has loaded what it needs. */
  cpu: number;
}

/** The task was given up because it needed more than it may use. */
export class OverLimit extends Error {
  readonly limit: keyof Limits;
  constructor(limit: keyof Limits) {
    super(`A task in a thread used more ${limit} than it may`);
    this.limit = limit;
  }
}

/** The thread refused its task, in a sentence for the person who asked. */
export class TaskRefused extends Error {}

/** Tasks make many small things that are soon forgotten: with V8's usual room of 48, a third of their CPU time goes into tidying up. */
const YOUNG_MEGABYTES = 192;
const LOOKED_AFTER_MILLISECONDS = 250;
/** What has not ended by then waits for something that does not come. */
const MOST_MILLISECONDS = 10 * 60_000;

interface Options<Progress> extends Limits {
  /** Large packages in plain JavaScript that the module will import. */
  preload?: readonly string[];
  onProgress?: ((progress: Progress) => void) | undefined;
}

/**
 * Does one task in a thread of its own, which ends with it; the module answers with `doTask`.
 * @throws OverLimit, TaskRefused, or what broke in the thread
 */
export function runTask<Result, Progress = never>(
  name: keyof typeof WORKERS,
  task: object,
  { memory, cpu, preload = [], onProgress }: Options<Progress>,
): Promise<Result> {
  const resourceLimits = { maxOldGenerationSizeMb: memory, maxYoungGenerationSizeMb: YOUNG_MEGABYTES };
  const worker = threadOf(name, task, { resourceLimits, preload });
  let watch: NodeJS.Timeout | undefined;
  const result = new Promise<Result>((resolve, reject) => {
    const end = setTimeout(() => reject(new OverLimit('cpu')), MOST_MILLISECONDS);
    worker.on('message', (said: Said) => {
      if ('begun' in said) {
        const before = cpuSeconds(worker, said.begun);
        watch = setInterval(() => {
          if (cpuSeconds(worker, said.begun) - before > cpu) reject(new OverLimit('cpu'));
        }, LOOKED_AFTER_MILLISECONDS);
      } else if ('progress' in said) onProgress?.(said.progress as Progress);
      else if ('result' in said) resolve(said.result as Result);
      else reject(new TaskRefused(said.refused));
    });
    worker.on('error', (error: NodeJS.ErrnoException) =>
      reject(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? new OverLimit('memory') : error),
    );
    worker.on('exit', () => {
      clearTimeout(end);
      reject(new Error(`The thread “${name}” ended without an answer`));
    });
  });
  return result.finally(() => {
    clearInterval(watch);
    void worker.terminate();
  });
}

/**
 * In the thread: does the task and answers it.
 * @param refusalOf the sentence where the task could not be done, or `undefined` where it is a fault of ours
 */
export async function doTask<Task>(
  work: (task: Task, progress: (progress: unknown) => void) => unknown,
  refusalOf: (error: unknown) => string | undefined = () => undefined,
): Promise<void> {
  const say = (said: Said): void => parentPort!.postMessage(said);
  say({ begun: systemThread() });
  try {
    say({ result: await work(workerData as Task, (progress) => say({ progress })) });
  } catch (error) {
    const refused = refusalOf(error);
    if (refused === undefined) throw error;
    say({ refused });
  }
}
