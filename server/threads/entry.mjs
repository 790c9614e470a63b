// A worker thread does not inherit the TypeScript loader of its parent, so it starts here and loads the real module itself.
import { workerData } from 'node:worker_threads';
import { register } from 'tsx/esm/api';

// Large packages load many times quicker before the loader looks at every file.
for (const module of workerData.preload) await import(module);
register();
await import(workerData.module);
