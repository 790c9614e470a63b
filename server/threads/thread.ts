import { Worker, type ResourceLimits } from 'node:worker_threads';
import { fromRoot, IS_BUILT } from '../root.ts';
import { WORKERS } from './workers.ts';

interface Options {
  resourceLimits?: ResourceLimits;
  /** Large packages in plain JavaScript that the module will import. */
  preload?: readonly string[];
}

/** A thread that runs one of our modules; `data` is its `workerData`. */
export function threadOf(
  name: keyof typeof WORKERS,
  data: object,
  { resourceLimits = {}, preload = [] }: Options = {},
): Worker {
  if (IS_BUILT || process.env.VIVID_THREADS === 'built')
    return new Worker(fromRoot(`dist/server/${name}.js`), { workerData: data, resourceLimits });
  const module = fromRoot(WORKERS[name]).href;
  return new Worker(fromRoot('server/threads/entry.mjs'), { workerData: { ...data, module, preload }, resourceLimits });
}
