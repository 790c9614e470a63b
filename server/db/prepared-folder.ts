import { PGlite } from '@electric-sql/pglite';
import { chmod, cp, mkdir, mkdtemp, readFile, readdir, rename, rm } from 'node:fs/promises';
import { createRequire } from 'node:module';
import path from 'node:path';

/** PGlite takes seconds to make a new data folder; copying one that was made before takes a fraction. */
export async function fillFromPrepared(folder: string, cacheFolder: string): Promise<void> {
  await mkdir(folder, { recursive: true, mode: 0o700 });
  await chmod(folder, 0o700);
  if ((await readdir(folder)).includes('PG_VERSION')) return;
  await cp(await preparedFolder(cacheFolder), folder, { recursive: true });
}

async function preparedFolder(cacheFolder: string): Promise<string> {
  const prepared = path.join(cacheFolder, `empty-database-${await pgliteVersion()}`);
  if (await exists(prepared)) return prepared;
  await mkdir(cacheFolder, { recursive: true });
  const fresh = await mkdtemp(path.join(cacheFolder, 'preparing-'));
  await (await PGlite.create({ dataDir: fresh })).close();
  // Whoever comes second finds the place taken by the same thing.
  await rename(fresh, prepared).catch(() => rm(fresh, { recursive: true }));
  return prepared;
}

async function pgliteVersion(): Promise<string> {
  const entry = createRequire(import.meta.url).resolve('@electric-sql/pglite');
  const manifest = JSON.parse(await readFile(path.join(path.dirname(entry), '..', 'package.json'), 'utf8')) as {
    version: string;
  };
  return manifest.version;
}

const exists = (folder: string): Promise<boolean> =>
  readdir(folder).then(
    () => true,
    () => false,
  );
