import { rm } from 'node:fs/promises';
import path from 'node:path';
import type { Database } from '../server/db/database.ts';
import { lockFolder } from '../server/db/folder-lock.ts';
import { openDatabase } from '../server/db/open.ts';
import { readSettings, type Settings } from '../server/settings.ts';
import type { Running } from '../server/start.ts';

export interface ServeOptions {
  port?: number;
  sample?: boolean;
  fresh?: boolean;
}

/** Runs until the process is told to stop. */
export async function serve(options: ServeOptions): Promise<void> {
  const settings = { ...readSettings(process.env), ...(options.port !== undefined && { port: options.port }) };
  if (options.sample && !process.env.VIVID_DATA) settings.dataFolder = path.join(settings.dataFolder, 'sample');
  if (options.fresh) await clear(settings);
  // The school is loaded while its database opens.
  const [db, { serveSchool }] = await Promise.all([openDatabase(settings), import('./serve-school.ts')]);
  try {
    const running = await serveSchool(db, settings, options.sample ?? false);
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.once(signal, () => void stop(running, db).then(() => process.exit(0)));
  } catch (error) {
    await db.close();
    throw error;
  }
}

async function stop(running: Running, db: Database): Promise<void> {
  await running.stop();
  await db.close();
}

async function clear(settings: Settings): Promise<void> {
  if (settings.databaseUrl) throw new Error('--fresh clears only the embedded database; DATABASE_URL is set.');
  const folder = path.join(settings.dataFolder, 'database');
  const unlock = await lockFolder(folder);
  await rm(folder, { recursive: true, force: true });
  await unlock();
}
