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
  const [db, { serveSchool }] = await Promise.all([openDatabase(settings, giveUp), import('./serve-school.ts')]);
  try {
    const running = await serveSchool(db, settings, options.sample ?? false);
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.once(signal, () => void stop(running, db).then(() => process.exit(0)));
  } catch (error) {
    await db.close();
    throw error;
  }
}

/** A server without its database helps nobody: whoever watches over it starts it again. */
function giveUp(why: Error): void {
  process.stderr.write(`${why.message} The server ends; start it again.\n`);
  process.exit(1);
}

/** Milliseconds that what is being written has to come to its end. */
const LAST_WORDS = 10_000;

async function stop(running: Running, db: Database): Promise<void> {
  setTimeout(() => giveUp(new Error('The database did not close.')), LAST_WORDS).unref();
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
