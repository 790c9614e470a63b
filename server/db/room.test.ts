import { mkdtemp } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import path from 'node:path';
import { Worker } from 'node:worker_threads';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { cacheFolder } from '../testing/databases.ts';
import { lockFolder } from './folder-lock.ts';
import { openPglite, type PgliteOptions } from './pglite.ts';
import { NoRoom, RESERVE, roomIn } from './room.ts';

let folder: string;
let free: number;
const written = vi.spyOn(process.stderr, 'write');
beforeEach(async () => {
  folder = path.join(await mkdtemp(path.join(tmpdir(), 'vivid-room-')), 'database');
  free = 10 * RESERVE;
  written.mockReset().mockReturnValue(true);
});

const room = () => roomIn('/data', () => Promise.resolve(free));
const open = (more: Partial<PgliteOptions> = {}) => openPglite({ folder, cacheFolder, room: room(), ...more });

describe('the room on the disk', () => {
  it('is enough as long as the reserve is left after what is written, three times', async () => {
    const disk = room();
    free = RESERVE + 3000;
    await disk.need(1000);
    await expect(disk.need(1001)).rejects.toThrow(NoRoom);
    free = RESERVE - 1;
    await expect(disk.need(0)).rejects.toThrow('There is too little room where the data are kept (/data)');
    expect(written, 'told in the log, and not each time').toHaveBeenCalledTimes(1);
    const later = vi.spyOn(performance, 'now').mockReturnValue(performance.now() + 50_000);
    await expect(disk.need(0)).rejects.toThrow(NoRoom);
    expect(written).toHaveBeenCalledTimes(1);
    later.mockReturnValue(performance.now() + 20_000);
    await expect(disk.need(0)).rejects.toThrow(NoRoom);
    later.mockRestore();
    expect(written, 'a minute after it was told').toHaveBeenCalledTimes(2);
  });

  it('is asked of the disk itself, also before there is a folder', async () => {
    await roomIn(path.join(folder, 'not', 'there')).need(1);
    await expect(roomIn(folder).need(Number.MAX_SAFE_INTEGER)).rejects.toThrow(NoRoom);
  });
});

describe('an embedded database', () => {
  it(
    'refuses to write where there is no room, whole transactions, and can be read on',
    { timeout: 60_000 },
    async () => {
      const db = await open();
      await db.script('create table notes (text text)');
      await db.query('insert into notes values ($1)', ['kept']);
      const texts = async () => (await db.query('select text from notes order by text')).map(({ text }) => text);

      await expect(
        db.transaction(async (tx) => {
          await tx.query('insert into notes values ($1)', ['half']);
          free = RESERVE - 1;
          await tx.query('insert into notes values ($1)', ['the other half']);
        }),
      ).rejects.toThrow(NoRoom);
      expect(await texts()).toEqual(['kept']);
      await expect(db.query('delete from notes')).rejects.toThrow(NoRoom);

      free = 10 * RESERVE;
      await db.query('insert into notes values ($1)', ['later']);
      expect(await texts()).toEqual(['kept', 'later']);
      await db.close();
    },
  );

  it('is not opened where there is no room, and leaves no lock behind', async () => {
    free = 0;
    await expect(open()).rejects.toThrow(NoRoom);
    await (
      await lockFolder(folder)
    )();
  });

  it(
    'that does not answer is given up: whoever waits is told, and the folder is free',
    { timeout: 60_000 },
    async () => {
      const onLost = vi.fn();
      const db = await open({ onLost, patience: 1500 });
      await db.script('create function forever() returns int language plpgsql as $$ begin loop end loop; end $$');
      const asked = [db.query('select forever()'), db.query('select 1')];
      for (const one of asked) await expect(one).rejects.toThrow(/has not answered for 2 seconds|has ended/);
      expect(onLost.mock.calls.map(([why]) => (why as Error).message)).toEqual([
        'The database has not answered for 2 seconds.',
      ]);
      await vi.waitFor(async () => (await lockFolder(folder))(), { timeout: 10_000 });
      await expect(db.query('select 1')).rejects.toThrow('has not answered');
      // What it was at is undone, the rest is there.
      const again = await open();
      expect(await again.query("select count(*) from pg_proc where proname = 'forever'")).toEqual([{ count: 1 }]);
      await again.close();
    },
  );

  it('is sent a piece of a large buffer without all the rest', async () => {
    const db = await open();
    const sent = vi.spyOn(Worker.prototype, 'postMessage');
    const large = Buffer.alloc(1_000_000, 7);
    expect(await db.query('select length($1::bytea) as length', [large.subarray(10, 20)])).toEqual([{ length: 10 }]);
    const [{ values }] = sent.mock.calls[0] as [{ values: Uint8Array[] }];
    expect(values[0]!.buffer.byteLength).toBe(10);
    sent.mockRestore();
    await db.close();
  });

  it('that is closed is not lost', async () => {
    const onLost = vi.fn();
    const db = await open({ onLost });
    await db.query('select 1');
    await db.close();
    expect(onLost).not.toHaveBeenCalled();
  });
});
