import { readFileSync, readlinkSync } from 'node:fs';
import path from 'node:path';
import type { Worker } from 'node:worker_threads';

/** Linux counts in hundredths of a second, whatever the kernel's own clock (proc(5), USER_HZ). */
const TICKS_PER_SECOND = 100;

/** In a thread: the number by which the system knows it, where the system tells. */
export function systemThread(): number | undefined {
  try {
    return Number(path.basename(readlinkSync('/proc/thread-self')));
  } catch {
    return undefined;
  }
}

/**
 * The seconds of CPU that a thread has used: other work on the machine doesn't count against it. Where the system doesn't say, the
 * seconds in which it was not waiting.
 * @param thread as `systemThread` gave it inside the thread
 */
export function cpuSeconds(worker: Worker, thread: number | undefined): number {
  const ticks = thread === undefined ? undefined : ticksOf(thread);
  return ticks === undefined ? worker.performance.eventLoopUtilization().active / 1000 : ticks / TICKS_PER_SECOND;
}

/** User and system time are the 14th and 15th field of `stat`; the second, a name in brackets, may hold blanks (proc(5)). */
function ticksOf(thread: number): number | undefined {
  try {
    const stat = readFileSync(`/proc/self/task/${thread}/stat`, 'utf8');
    const fields = stat.slice(stat.lastIndexOf(')') + 2).split(' ');
    return Number(fields[11]) + Number(fields[12]);
  } catch {
    return undefined;
  }
}
