import { spawn } from 'node:child_process';
import { once } from 'node:events';
import { mkdtemp, readFile, writeFile } from 'node:fs/promises';
import { hostname, tmpdir } from 'node:os';
import path from 'node:path';
import { beforeEach, describe, expect, it } from 'vitest';
import { FolderInUse, lockFolder } from './folder-lock.ts';

let folder: string;
beforeEach(async () => {
  folder = path.join(await mkdtemp(path.join(tmpdir(), 'lock-')), 'database');
});

const SCRIPT = `const { lockFolder } = await import(process.argv[1]);
  await lockFolder(process.argv[2]).then(() => console.log('locked'), (e) => console.log(e.message));
  setInterval(() => {}, 1000);`;

function otherProcess() {
  const module = new URL('./folder-lock.ts', import.meta.url).href;
  return spawn(process.execPath, ['--import', 'tsx', '--input-type=module', '-e', SCRIPT, module, folder]);
}

describe('lockFolder', () => {
  it('refuses a second owner in the same process, and lets the next one in after it is free', async () => {
    const unlock = await lockFolder(folder);
    await expect(lockFolder(folder)).rejects.toThrow(FolderInUse);
    await unlock();
    await (
      await lockFolder(folder)
    )();
  });

  it('refuses while another process lives, and takes over at once when it was killed', async () => {
    const other = otherProcess();
    const [said] = (await once(other.stdout, 'data')) as [Buffer];
    expect(said.toString().trim()).toBe('locked');
    await expect(lockFolder(folder)).rejects.toThrow(`in use by another Vivid Margin (process ${other.pid})`);
    other.kill('SIGKILL');
    await once(other, 'exit');
    await (
      await lockFolder(folder)
    )();
  });

  it('is not fooled by a process number that was given out again', async () => {
    const init = { pid: 1, host: hostname(), started: 'long ago' };
    await writeFile(`${folder}.lock`, JSON.stringify(init));
    await (
      await lockFolder(folder)
    )();
  });

  it('does not judge about processes of another machine', async () => {
    await writeFile(`${folder}.lock`, JSON.stringify({ pid: 1, host: 'elsewhere', started: null }));
    await expect(lockFolder(folder)).rejects.toThrow('on the machine “elsewhere”');
    expect(await readFile(`${folder}.lock`, 'utf8')).toContain('elsewhere');
  });

  it('takes over a lock file that a full disk left empty', async () => {
    await writeFile(`${folder}.lock`, '');
    await (
      await lockFolder(folder)
    )();
    expect(await readFile(`${folder}.lock.1`, 'utf8')).toBe('');
  });

  it('lets one in of all that start at once, round for round', async () => {
    const dead = JSON.stringify({ pid: 1, host: hostname(), started: 'long ago' });
    for (let round = 0; round < 200; round++) {
      const own = `${folder}-${round % 7}`;
      if (round < 7) await writeFile(`${own}.lock`, round % 2 ? dead : '');
      const tries = await Promise.allSettled(Array.from({ length: 8 }, () => lockFolder(own)));
      const unlocks = tries.flatMap((one) => (one.status === 'fulfilled' ? [one.value] : []));
      expect(unlocks).toHaveLength(1);
      await unlocks[0]!();
    }
  });

  it('lets one in of several processes that find a dead lock', { timeout: 60_000 }, async () => {
    await writeFile(`${folder}.lock`, JSON.stringify({ pid: 1, host: hostname(), started: 'long ago' }));
    const others = Array.from({ length: 4 }, otherProcess);
    const said = await Promise.all(
      others.map(async ({ stdout }) => String(((await once(stdout, 'data')) as [Buffer])[0])),
    );
    for (const other of others) other.kill('SIGKILL');
    expect(said.filter((one) => one.trim() === 'locked')).toHaveLength(1);
    expect(said.filter((one) => one.includes('is in use by another Vivid Margin'))).toHaveLength(3);
  });
});
