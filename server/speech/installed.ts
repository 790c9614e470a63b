import { accessSync, constants } from 'node:fs';
import path from 'node:path';

/** Where a program is that can be run, by its name; undefined where it is not installed. */
export function installed(program: string): string | undefined {
  for (const folder of (process.env.PATH ?? '').split(path.delimiter)) {
    const file = path.join(folder, program);
    try {
      accessSync(file, constants.X_OK);
      return file;
    } catch {
      // Not here.
    }
  }
  return undefined;
}
