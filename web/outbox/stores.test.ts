// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { describe, expect, it, vi } from 'vitest';
import { browserStore, kept, keepsNothing, tryStorage } from './browser-store.ts';
import { isInMemory, parcelStore } from './parcel-store.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';

describe('the stores', () => {
  it('keep a parcel under a key of their own, or in memory under one below zero', async () => {
    const parts = {
      subject: 'notes',
      about: ID,
      touches: ['a'],
      change: { text: 'a' },
      version: 2 as const,
      person: ID,
    };
    const there = await parcelStore.add(parts);
    expect([there.key > 0, await parcelStore.has(there), isInMemory(there)]).toEqual([true, true, false]);
    await parcelStore.put({ ...there, refused: 'no' });
    expect(await parcelStore.of(ID)).toMatchObject([{ key: there.key, refused: 'no' }]);
    await parcelStore.delete(there);
    expect([await parcelStore.has(there), await parcelStore.of(ID)]).toEqual([false, []]);

    const add = vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const [one, other] = [await parcelStore.add(parts), await parcelStore.add(parts)];
    add.mockRestore();
    expect(other.key).toBe(one.key - 1);
    await parcelStore.put(one);
    await parcelStore.delete(one);
    expect([one.key < 0, await parcelStore.has(one), isInMemory(one), await parcelStore.of(ID)]).toEqual([
      ...[true, true, true],
      [],
    ]);
  });

  it('say so where nothing works, and send rather than drop what they cannot look up', async () => {
    const fail = (): never => {
      throw new DOMException('no', 'InvalidStateError');
    };
    vi.spyOn(IDBDatabase.prototype, 'transaction').mockImplementation(fail);
    expect([await tryStorage(), keepsNothing.value]).toEqual([false, true]);
    expect(await parcelStore.of(ID)).toEqual([]);
    expect(await parcelStore.has({ key: 5 } as never)).toBe(true);
    vi.restoreAllMocks();
    expect(await kept((store) => store.count('parcels'), -1)).toBe(0);
    expect([keepsNothing.value, await tryStorage()]).toEqual([false, true]);
    expect(await (await browserStore()).count('chunks')).toBe(0);
  });

  it('are told apart by take and position, so that no second of a take covers another', async () => {
    const store = await browserStore();
    for (const name of ['chunks', 'notes'] as const) {
      for (const [take, position] of [
        ['t', 0],
        ['t', 1],
        ['u', 0],
      ] as const)
        await store.put(name, { take, position, blob: new Blob(), note: 1 } as never);
      expect(await store.getAllKeys(name)).toEqual([
        ['t', 0],
        ['t', 1],
        ['u', 0],
      ]);
      await store.clear(name);
    }
  });

  it('make way for a newer version of themselves, and are opened again afterwards', async () => {
    const before = await browserStore();
    expect(await browserStore()).toBe(before);
    const gone = indexedDB.deleteDatabase('vivid-margin');
    await new Promise((done) => gone.addEventListener('success', done));
    const after = await browserStore();
    expect(after).not.toBe(before);
    expect(await after.count('parcels')).toBe(0);
  });
});
