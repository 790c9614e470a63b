import path from 'node:path';
import type { Settings } from '../settings.ts';
import type { Database } from './database.ts';
import { migrate } from './migrate.ts';
import { openPglite } from './pglite.ts';

/**
 * The database that the settings name, with all migrations run.
 * @param onLost called when an embedded one answers no more, and never will
 */
export async function openDatabase(
  settings: Pick<Settings, 'databaseUrl' | 'dataFolder' | 'cacheFolder'>,
  onLost?: (why: Error) => void,
): Promise<Database> {
  const db = settings.databaseUrl
    ? (await import('./pool.ts')).openPool(settings.databaseUrl)
    : await openPglite({
        ...{ folder: path.join(settings.dataFolder, 'database'), cacheFolder: settings.cacheFolder },
        ...(onLost && { onLost }),
      });
  try {
    await migrate(db);
    return db;
  } catch (error) {
    await db.close();
    throw error;
  }
}
