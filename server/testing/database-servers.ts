import { execFileSync } from 'node:child_process';
import { existsSync, mkdtempSync, readdirSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import path from 'node:path';
import type { TestProject } from 'vitest/node';

declare module 'vitest' {
  interface ProvidedContext {
    /** Of a PostgreSQL server for the tests; empty where there is none on this machine. */
    postgresUrl: string;
    /** Embedded databases of the tests are beside each other in folders that begin with this. */
    pgliteFolder: string;
  }
}

const INSTALLED = '/usr/lib/postgresql';

/** Makes room for embedded databases, and starts a PostgreSQL server of its own if PostgreSQL is on the machine: the data tests run against both bodies. */
export default function setup(project: TestProject): () => void {
  const folder = mkdtempSync(path.join(tmpdir(), 'databases-'));
  project.provide('pgliteFolder', path.join(folder, 'pglite-'));
  const stop = startPostgres(folder, project);
  return () => {
    stop();
    rmSync(folder, { recursive: true, force: true });
  };
}

function startPostgres(folder: string, project: TestProject): () => void {
  const programs = existsSync(INSTALLED)
    ? readdirSync(INSTALLED).map((version) => path.join(INSTALLED, version, 'bin'))
    : [];
  const bin = programs.findLast((folder) => existsSync(path.join(folder, 'initdb')));
  project.provide('postgresUrl', '');
  if (!bin) return () => undefined;

  const data = path.join(folder, 'data');
  const asRoot = process.getuid?.() === 0;
  // PostgreSQL refuses to run as root; Debian's package brings the user.
  const run = (program: string, ...args: string[]): void => {
    const command = [path.join(bin, program), ...args];
    const [first, ...rest] = asRoot ? ['runuser', '-u', 'postgres', '--', ...command] : command;
    execFileSync(first!, rest, { stdio: 'ignore', cwd: folder });
  };
  if (asRoot) execFileSync('chown', ['postgres', folder]);
  run('initdb', '-D', data, '-A', 'trust', '-U', 'postgres', '--no-sync', '-E', 'UTF8', '--locale', 'C');
  run(
    'pg_ctl',
    '-D',
    data,
    '-w',
    '-l',
    path.join(folder, 'log'),
    '-o',
    `-k ${folder} -c listen_addresses= -c fsync=off`,
    'start',
  );
  project.provide('postgresUrl', `postgres://postgres@localhost/postgres?host=${encodeURIComponent(folder)}`);
  return () => run('pg_ctl', '-D', data, '-m', 'immediate', 'stop');
}
