import { Worker, type ResourceLimits } from 'node:worker_threads';

interface Options {
  resourceLimits?: ResourceLimits;
  /** Large packages in plain JavaScript that the module will import. */
  preload?: readonly string[];
}

/** A worker thread that runs a TypeScript module of ours; `data` is its `workerData`. */
export const threadOf = (module: URL, data: object, { resourceLimits = {}, preload = [] }: Options = {}): Worker =>
  new Worker(new URL('./entry.mjs', import.meta.url), {
    workerData: { ...data, module: module.href, preload },
    resourceLimits,
  });
