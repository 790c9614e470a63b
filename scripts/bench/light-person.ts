import { once } from 'node:events';
import { Worker } from 'node:worker_threads';
import type { LightTimes } from './light-worker.ts';

/** A thread does not take over how its parent loads TypeScript. */
const FROM_SOURCES = `import('tsx/esm/api').then(({ register }) => {
  register();
  return import(require('node:worker_threads').workerData.module);
});`;

/** Somebody who asks for little all the while, in a thread of their own, so that only the server can make them wait. */
export class LightPerson {
  readonly #worker: Worker;

  private constructor(worker: Worker) {
    this.#worker = worker;
  }

  static async in(address: string): Promise<LightPerson> {
    const worker = new Worker(FROM_SOURCES, {
      eval: true,
      workerData: { module: new URL('light-worker.ts', import.meta.url).href, address },
    });
    await once(worker, 'message');
    return new LightPerson(worker);
  }

  /** Milliseconds until each request was answered, until some work has ended. */
  async during(work: Promise<unknown>): Promise<number[]> {
    this.#worker.postMessage('begin');
    await work;
    this.#worker.postMessage('end');
    const [times] = (await once(this.#worker, 'message')) as [LightTimes];
    return times;
  }

  async leave(): Promise<void> {
    await this.#worker.terminate();
  }
}
