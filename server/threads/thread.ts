import { Worker, type ResourceLimits } from 'node:worker_threads';

/** A worker thread that runs a TypeScript module of ours; `data` is its `workerData`. */
export const threadOf = (module: URL, data: object, resourceLimits: ResourceLimits = {}): Worker =>
  new Worker(new URL('./entry.mjs', import.meta.url), { workerData: { ...data, module: module.href }, resourceLimits });
