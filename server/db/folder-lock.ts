import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import { link, mkdir, readdir, readFile, rm, truncate, writeFile } from 'node:fs/promises';
import { hostname } from 'node:os';
import path from 'node:path';
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
 * PGlite has no lock of its own, and two processes on one folder ruin it. Locks are numbered files that name their process; the
 * one of the highest number counts. It is never deleted, only emptied, and whoever finds it empty, or its process gone (also by
 * `kill -9`), makes the next one: of all who try, the file system lets one succeed.
 * @returns a function that gives the folder free
 * @throws FolderInUse
 */
export async function lockFolder(folder: string): Promise<() => Promise<void>> {
  await mkdir(path.dirname(folder), { recursive: true });
  const me: Owner = { pid: process.pid, host: hostname(), started: processStart(process.pid) };
  for (;;) {
    const last = Math.max(NONE, ...(await numbersOf(folder)));
    const owner = await readOwner(lockFile(folder, last));
    if (owner && isRunning(owner)) throw new FolderInUse(folder, owner, lockFile(folder, last));
    const mine = lockFile(folder, last + 1);
    if (!(await createLock(mine, me))) continue;
    const numbers = await numbersOf(folder);
    // It was not the next any more: others have been here meanwhile, and cleared up behind them.
    if (Math.max(...numbers) > last + 1) {
      await rm(mine, { force: true });
      continue;
    }
    for (const number of numbers) if (number <= last) await rm(lockFile(folder, number), { force: true });
    // Needs no room, so it also works on a full disk.
    return () => truncate(mine).catch(() => undefined);
  }
}

const NONE = -1;

/** The first had no number. */
const lockFile = (folder: string, number: number): string =>
  number === 0 ? `${folder}.lock` : `${folder}.lock.${number}`;

async function numbersOf(folder: string): Promise<number[]> {
  const name = `${path.basename(folder)}.lock`;
  return (await readdir(path.dirname(folder))).flatMap((file) => {
    if (file === name) return [0];
    const number = file.startsWith(`${name}.`) ? file.slice(name.length + 1) : '';
    return /^\d+$/u.test(number) ? [Number(number)] : [];
  });
}

/** @returns false where there is one already. Nobody ever sees half of it. */
async function createLock(file: string, owner: Owner): Promise<boolean> {
  const draft = `${file}.${randomUUID()}`;
  try {
    await writeFile(draft, JSON.stringify(owner), { mode: 0o600, flag: 'wx' });
    await link(draft, file);
    return true;
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'EEXIST') return false;
    throw error;
  } finally {
    await rm(draft, { force: true });
  }
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
