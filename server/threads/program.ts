import { spawn } from 'node:child_process';
import { setPriority } from 'node:os';

/** A program that was too slow, or ended otherwise than it should. */
export class ProgramFailed extends Error {
  constructor(readonly late: boolean) {
    super(late ? 'A program took too long' : 'A program failed');
  }
}

/** As nice as can be: the desk comes first. */
const NICENESS = 19;
const MOST_BYTES = 32 * 1024 * 1024;

interface Options {
  /** After which it is ended. */
  seconds: number;
  signal?: AbortSignal | undefined;
  env?: NodeJS.ProcessEnv;
}

/**
 * Runs a program of this machine as a process of its own, so that whatever happens to it never touches the server.
 * @returns what it writes
 * @throws ProgramFailed
 */
export function runProgram(
  program: string,
  args: readonly string[],
  { seconds, signal, env }: Options,
): Promise<Buffer> {
  return new Promise((done, failed) => {
    const child = spawn(program, args, {
      ...{ stdio: ['ignore', 'pipe', 'ignore'], killSignal: 'SIGKILL' },
      ...(signal && { signal }),
      ...(env && { env: { ...process.env, ...env } }),
    });
    const written: Buffer[] = [];
    let size = 0;
    let late = false;
    const timer = setTimeout(() => {
      late = true;
      child.kill('SIGKILL');
    }, seconds * 1000);
    child.stdout!.on('data', (bytes: Buffer) => {
      size += bytes.length;
      if (size > MOST_BYTES) child.kill('SIGKILL');
      else written.push(bytes);
    });
    child.on('spawn', () => child.pid && lower(child.pid));
    child.on('error', () => failed(new ProgramFailed(false)));
    child.on('close', (code) => {
      clearTimeout(timer);
      if (late || code !== 0) failed(new ProgramFailed(late));
      else done(Buffer.concat(written));
    });
  });
}

function lower(pid: number): void {
  try {
    setPriority(pid, NICENESS);
  } catch {
    // It has ended already.
  }
}
