import { rm } from 'node:fs/promises';
import path from 'node:path';
import { loginOf, TEACHERS } from '../demo/people.ts';
import { fillSampleSchool, SAMPLE_PASSWORD } from '../demo/fill.ts';
import type { Database } from '../server/db/database.ts';
import { lockFolder } from '../server/db/folder-lock.ts';
import { openDatabase } from '../server/db/open.ts';
import { readSettings, type Settings } from '../server/settings.ts';
import { HOW_TO_GET_POCKETSPHINX } from '../server/speech/pocketsphinx.ts';
import { enginesOf } from '../server/speech/speech.ts';
import { startServer, type Running } from '../server/start.ts';

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
  const db = await openDatabase(settings);
  try {
    if (options.sample) await fillSampleSchool(db);
    const running = await startServer(db, settings);
    say(running.address, options.sample ?? false);
    if (settings.dictation && enginesOf(settings).length === 0)
      process.stdout.write(
        `No speech engine is installed, so recordings are not written down: ${HOW_TO_GET_POCKETSPHINX}\n`,
      );
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

function say(address: string, sample: boolean): void {
  process.stdout.write(`Vivid Margin is ready at ${address}\n`);
  if (!sample) return;
  const [teacher] = TEACHERS.map(loginOf);
  process.stdout.write(
    `This is the sample school. Sign in with one click as any of its people, for example the teacher ${TEACHERS[0]}` +
      ` or the student Amaru Quispe, or by name: ${teacher} or amaru-quispe, password ${SAMPLE_PASSWORD}.\nStop with Ctrl+C; what you did is kept.\n`,
  );
}
