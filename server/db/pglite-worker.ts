import { PGlite } from '@electric-sql/pglite';
import { parentPort, workerData } from 'node:worker_threads';
import { fillFromPrepared } from './prepared-folder.ts';
import { parsers, serializers } from './values.ts';

/** What the thread is asked. Every request is answered by one {@link WorkerAnswer} with the same id. */
export type WorkerRequest = { id: number } & (
  { type: 'query'; sql: string; values: readonly unknown[] } | { type: 'script'; sql: string } | { type: 'close' }
);

export interface WorkerAnswer {
  id: number;
  rows?: Record<string, unknown>[];
  error?: { message: string; code?: string; constraint?: string; detail?: string };
}

export interface WorkerSettings {
  folder: string;
  cacheFolder: string;
}

const port = parentPort!;
const { folder, cacheFolder } = workerData as WorkerSettings;

async function open(): Promise<PGlite> {
  await fillFromPrepared(folder, cacheFolder);
  return PGlite.create({ dataDir: folder, parsers, serializers });
}

async function answer(pglite: PGlite, request: WorkerRequest): Promise<Record<string, unknown>[]> {
  if (request.type === 'query')
    return (await pglite.query<Record<string, unknown>>(request.sql, [...request.values])).rows;
  if (request.type === 'script') await pglite.exec(request.sql);
  else await pglite.close();
  return [];
}

function plainError(error: unknown): NonNullable<WorkerAnswer['error']> {
  const { message, code, constraint, detail } = error as Error & {
    code?: string;
    constraint?: string;
    detail?: string;
  };
  return { message, ...(code && { code }), ...(constraint && { constraint }), ...(detail && { detail }) };
}

try {
  const pglite = await open();
  let turn: Promise<void> = Promise.resolve();
  port.on('message', (request: WorkerRequest) => {
    turn = turn.then(async () => {
      try {
        port.postMessage({ id: request.id, rows: await answer(pglite, request) } satisfies WorkerAnswer);
      } catch (error) {
        port.postMessage({ id: request.id, error: plainError(error) } satisfies WorkerAnswer);
      }
      if (request.type === 'close') port.close();
    });
  });
  port.postMessage({ id: 0, rows: [] } satisfies WorkerAnswer);
} catch (error) {
  port.postMessage({ id: 0, error: plainError(error) } satisfies WorkerAnswer);
  port.close();
}
