import type { Worker } from 'node:worker_threads';
import { threadOf } from '../threads/thread.ts';
import type { Aligned, Said } from './aligner.ts';
import { SpeechError, speechErrors } from './speech-error.ts';
import type { Listened, SpeechAnswer, SpeechRequest, SpeechTask, SpeechThreadData } from './speech-worker.ts';

/** Listening to recordings apart from the server's own thread. */
export interface SpeechThread {
  /** @throws SpeechError */
  listen(bytes: Uint8Array): Promise<Listened>;
  /** @throws SpeechError */
  align(bytes: Uint8Array, said: Said): Promise<Aligned>;
  stop(): Promise<void>;
}

const LIMITS = { maxOldGenerationSizeMb: 1024 };
/** What gives no sign of life for so long does not come to an end any more. */
const MAX_MILLISECONDS = 5 * 60_000;
/** The models take some memory; a thread that nobody needed for so long gives it back. */
const IDLE_MILLISECONDS = 10 * 60_000;

interface Waiting {
  done: (result: Listened | Aligned) => void;
  failed: (error: SpeechError) => void;
  timer: NodeJS.Timeout;
}

/**
 * Two threads: nobody waits for a recording to be listened to, but whoever has mended a transcript sees its times come.
 */
export function speechThread(): SpeechThread {
  const [listening, aligning] = [lane({ background: true }), lane({ background: false })];
  return {
    listen: (bytes) => listening.ask({ type: 'listen', bytes }),
    align: (bytes, said) => aligning.ask({ type: 'align', bytes, said }),
    stop: async () => void (await Promise.all([listening.stop(), aligning.stop()])),
  };
}

interface Lane {
  ask<Result extends Listened | Aligned>(task: SpeechTask): Promise<Result>;
  stop(): Promise<void>;
}

/** A thread that starts with the first task; after a crash, or a task that hangs, the next one starts it again. */
function lane(data: SpeechThreadData): Lane {
  const waiting = new Map<number, Waiting>();
  let worker: Worker | undefined;
  let next = 0;
  let idle: NodeJS.Timeout | undefined;

  function start(): Worker {
    const started = threadOf('speech', data, { resourceLimits: LIMITS });
    started.on('message', (answer: SpeechAnswer) => settle(answer));
    started.on('error', () => giveUp(started));
    started.on('exit', () => giveUp(started));
    return started;
  }

  function settle(answer: SpeechAnswer): void {
    if ('alive' in answer) return void waiting.get(answer.id)?.timer.refresh();
    const asked = take(answer.id);
    if (!asked) return;
    if ('result' in answer) asked.done(answer.result);
    else if ('refused' in answer) asked.failed(new SpeechError(answer.refused.message, answer.refused.lasting));
    else asked.failed(speechErrors.notMade());
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

  function giveUp(broken: Worker): void {
    if (broken !== worker) return;
    worker = undefined;
    for (const id of [...waiting.keys()]) take(id)?.failed(speechErrors.engineDied('The decoder of recordings'));
  }

  function ask<Result extends Listened | Aligned>(task: SpeechTask): Promise<Result> {
    return new Promise((done, failed) => {
      const id = next++;
      const timer = setTimeout(() => {
        take(id)?.failed(speechErrors.tooSlow('The decoder of recordings'));
        void stop();
      }, MAX_MILLISECONDS);
      timer.unref();
      waiting.set(id, { done: done as Waiting['done'], failed, timer });
      worker ??= start();
      worker.ref();
      worker.postMessage({ id, task } satisfies SpeechRequest);
    });
  }

  async function stop(): Promise<void> {
    clearTimeout(idle);
    const stopped = worker;
    if (!stopped) return;
    giveUp(stopped);
    await stopped.terminate();
  }

  return { ask, stop };
}
