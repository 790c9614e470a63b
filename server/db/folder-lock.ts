import { mkdir, open, readFile, rename, rm } from 'node:fs/promises';
import { readFileSync } from 'node:fs';
import { hostname } from 'node:os';
import path from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { z } from 'zod';

const Owner = z.object({
  pid: z.int(),
  host: z.string(),
  /** When the kernel started the process, so that a recycled number is not taken for it; null where the system does not tell. */
  started: z.string().nullable(),
});
type Owner = z.infer<typeof Owner>;

export class FolderInUse extends Error {
  constructor(folder: string, owner: Owner, file: string) {
    super(
      owner.host === hostname()
        ? `The data folder ${folder} is in use by another Vivid Margin (process ${owner.pid}). Stop that one first, or choose another folder with VIVID_DATA.`
        : `The data folder ${folder} is in use by another Vivid Margin on the machine “${owner.host}”. If you are sure that none is running there, delete ${file} and start again.`,
    );
    this.name = 'FolderInUse';
  }
}

/**
 * PGlite has no lock of its own, and two processes on one folder ruin it. The lock is a file that names its process; one
 * whose process is gone (also by `kill -9`) is taken over at once.
 * @returns a function that gives the folder free
 * @throws FolderInUse
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  const file = `${folder}.lock`;
  const me: Owner = { pid: process.pid, host: hostname(), started: processStart(process.pid) };
  await mkdir(path.dirname(folder), { recursive: true });
  if (!(await createLock(file, me))) {
    const owner = await readOwner(file);
    if (owner && isRunning(owner)) throw new FolderInUse(folder, owner, file);
    await takeOver(file, me, folder);
  }
  return () => rm(file, { force: true });
}

async function createLock(file: string, owner: Owner): Promise<boolean> {
  try {
    const handle = await open(file, 'wx', 0o600);
    await handle.writeFile(JSON.stringify(owner));
    await handle.close();
    return true;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'EEXIST') return false;
    throw error;
  }
}

/** Two starting at once may both find the old lock dead: the last to rename wins, the other sees so after a moment. */
async function takeOver(file: string, me: Owner, folder: string): Promise<void> {
  const mine = `${file}.${me.pid}`;
  await rm(mine, { force: true });
  await createLock(mine, me);
  await rename(mine, file);
  await sleep(100);
  const owner = await readOwner(file);
  if (owner?.pid !== me.pid) throw new FolderInUse(folder, owner ?? me, file);
}

async function readOwner(file: string): Promise<Owner | undefined> {
  try {
    return Owner.parse(JSON.parse(await readFile(file, 'utf8')));
  } catch {
    return undefined;
  }
}

function isRunning(owner: Owner): boolean {
  if (owner.host !== hostname()) return true;
  if (owner.pid === process.pid && owner.started === processStart(process.pid)) return true;
  try {
    process.kill(owner.pid, 0);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ESRCH') return false;
  }
  return owner.started === null || owner.started === processStart(owner.pid);
}

/** Field 22 of /proc/PID/stat (proc(5)): start time in clock ticks after boot. */
function processStart(pid: number): string | null {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? null;
  } catch {
    return null;
  }
}
