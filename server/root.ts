import { existsSync } from 'node:fs';
import path from 'node:path';
import { fileURLToPath, pathToFileURL } from 'node:url';

function findRoot(): string {
  let folder = path.dirname(fileURLToPath(import.meta.url));
  while (!existsSync(path.join(folder, 'package.json'))) folder = path.dirname(folder);
  return folder;
}

/** The folder of the project, whether the server runs from its sources or built. */
export const ROOT = findRoot();

/** A file of the project, e.g. `server/db/migrations/`. */
export const fromRoot = (name: string): URL => new URL(name, pathToFileURL(`${ROOT}/`));

/** Whether this is the built server; otherwise TypeScript is loaded as it stands. */
export const IS_BUILT = !import.meta.url.endsWith('.ts');
