import { parentPort, type ResourceLimits, type Worker } from 'node:worker_threads';
import { threadOf } from './thread.ts';
import type { WORKERS } from './workers.ts';

/** What a thread is told to do, and what it answers to that. */
interface Asked<Task> {
  id: number;
  task: Task;
}
type Answer<Refusal> =
  | { id: number; result: unknown }
  | { id: number; refused: Refusal }
  /** It goes on. */
  | { id: number; alive: true };

/** Why an answer never comes. */
export type Silence = 'ended' | 'too slow';

export interface AskedThread<Task> {
  ask<Result>(task: Task): Promise<Result>;
  /** Whatever waits for an answer is told that there is none. */
  stop(): Promise<void>;
}

interface Options<Refusal> {
  data?: object;
  resourceLimits?: ResourceLimits;
  /** The error of what the thread refused, in its own words. */
  refused(refusal: Refusal): Error;
  silent(why: Silence): Error;
  /** Called when what the thread remembers is gone. */
  forgotten?(): void;
}

/** What gives no sign of life for so long does not come to an end any more. */
const MAX_MILLISECONDS = 5 * 60_000;
/** A thread that nobody needed for so long gives its memory back. */
const IDLE_MILLISECONDS = 10 * 60_000;

interface Waiting {
  done: (result: never) => void;
  failed: (error: Error) => void;
  timer: NodeJS.Timeout;
}

/** A thread that starts with the first task; after a crash, or a task that hangs, the next one starts it again. */
export function askedThread<Task, Refusal>(
  name: keyof typeof WORKERS,
  { data = {}, resourceLimits = {}, refused, silent, forgotten }: Options<Refusal>,
): AskedThread<Task> {
  const waiting = new Map<number, Waiting>();
  let worker: Worker | undefined;
  let next = 0;
  let idle: NodeJS.Timeout | undefined;

  function start(): Worker {
    const started = threadOf(name, data, { resourceLimits });
    started.on('message', settle);
    started.on('error', () => giveUp(started, 'ended'));
    started.on('exit', () => giveUp(started, 'ended'));
    return started;
  }

  function settle(answer: Answer<Refusal>): void {
    if ('alive' in answer) return void waiting.get(answer.id)?.timer.refresh();
    const asked = take(answer.id);
    if ('result' in answer) asked?.done(answer.result as never);
    else asked?.failed(refused(answer.refused));
    if (waiting.size === 0) rest();
  }

  function take(id: number): Waiting | undefined {
    const asked = waiting.get(id);
    waiting.delete(id);
    clearTimeout(asked?.timer);
    return asked;
  }

  /** A thread that waits keeps no program from ending. */
  function rest(): void {
    worker?.unref();
    clearTimeout(idle);
    idle = setTimeout(() => waiting.size === 0 && void stop(), IDLE_MILLISECONDS);
    idle.unref();
  }

  function giveUp(broken: Worker, why: Silence): void {
    if (broken !== worker) return;
    worker = undefined;
    forgotten?.();
    for (const id of [...waiting.keys()]) take(id)?.failed(silent(why));
  }

  async function stop(why: Silence = 'ended'): Promise<void> {
    clearTimeout(idle);
    const stopped = worker;
    if (!stopped) return;
    giveUp(stopped, why);
    await stopped.terminate();
  }

  return {
    ask: (task) =>
      new Promise((done, failed) => {
        const id = next++;
        const timer = setTimeout(() => {
          take(id)?.failed(silent('too slow'));
          void stop();
        }, MAX_MILLISECONDS);
        timer.unref();
        waiting.set(id, { done, failed, timer });
        worker ??= start();
        worker.ref();
        worker.postMessage({ id, task } satisfies Asked<Task>);
      }),
    stop: () => stop(),
  };
}

/**
 * In the thread: does each task and answers it.
 * @param refusalOf what the asker is told where a task failed
 */
export function answerTasks<Task, Refusal>(
  work: (task: Task, alive: () => void) => unknown,
  refusalOf: (error: unknown) => Refusal,
): void {
  const answer = (message: Answer<Refusal>): void => parentPort!.postMessage(message);
  parentPort!.on('message', ({ id, task }: Asked<Task>) => {
    void (async () => work(task, () => answer({ id, alive: true })))().then(
      (result) => answer({ id, result }),
      (error: unknown) => answer({ id, refused: refusalOf(error) }),
    );
  });
}
