// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { browserStore } from '../outbox/browser-store.ts';
import { ChunkKeeper } from './chunk-keeper.ts';
import { z } from 'zod';
import type { TakeKind } from './take-kind.ts';
import { beginTake, forgetTake, letGoOfTake, readTake, unfinishedTakes, type TakeRecord } from './takes.ts';

/** Web Locks as far as takes use them: a lock is held until its promise resolves. */
const held = new Set<string>();
vi.stubGlobal('navigator', {
  locks: {
    request: async (name: string, work: () => Promise<void>) => {
      held.add(name);
      await work();
      held.delete(name);
    },
    query: () => Promise.resolve({ held: [...held].map((name) => ({ name })) }),
  },
});

const SHOUT: TakeKind<{ loud: number }> = { type: 'shout', about: z.object({ loud: z.number() }) };
const take = (id: string, person = 'teacher', place = 'work', about: unknown = { loud: 3 }): TakeRecord => ({
  id,
  version: 2,
  person,
  purpose: { type: 'shout', place, about },
  picture: null,
  mediaType: 'audio/webm',
  microphone: { type: 'device' },
  startedAt: '2026-01-01T10:00:00Z',
});
const piece = (text: string): Blob => new Blob([text]);
const idsFor = async (person: string, submission: string): Promise<string[]> =>
  (await unfinishedTakes(person, SHOUT, submission)).map(({ id }) => id);

beforeEach(async () => {
  const store = await browserStore();
  await store.clear('takes');
  await store.clear('chunks');
  held.clear();
});

describe('a take', () => {
  it('is offered again with all its seconds, in order, once its page is gone', async () => {
    const { save: keep } = await beginTake(take('a'));
    for (const text of ['one', 'two', 'three']) await keep(piece(text));
    expect(await unfinishedTakes('teacher', SHOUT, 'work')).toEqual([]);

    letGoOfTake('a');
    await vi.waitFor(() => expect(held.size).toBe(0));
    const [offered] = await unfinishedTakes('teacher', SHOUT, 'work');
    expect(offered).toMatchObject({ id: 'a', seconds: 3, startedAt: '2026-01-01T10:00:00Z' });
    expect(offered!.blob.type).toBe('audio/webm');
  });

  it('is offered to nobody else, and in no other work', async () => {
    const { save: keep } = await beginTake(take('a'));
    await keep(piece('x'));
    letGoOfTake('a');
    await vi.waitFor(() => expect(held.size).toBe(0));
    expect(await idsFor('teacher', 'work')).toEqual(['a']);
    expect(await idsFor('colleague', 'work')).toEqual([]);
    expect(await idsFor('teacher', 'other work')).toEqual([]);
  });

  it('is gone with all its pieces when it is forgotten, and leaves others alone', async () => {
    for (const id of ['a', 'b']) {
      const { save: keep } = await beginTake(take(id));
      await keep(piece(id));
      letGoOfTake(id);
    }
    await vi.waitFor(() => expect(held.size).toBe(0));
    await forgetTake('a');
    expect(await idsFor('teacher', 'work')).toEqual(['b']);
    expect((await (await browserStore()).getAllKeys('chunks')).map(([id]) => id)).toEqual(['b']);
  });

  it('comes with what was done while it was spoken', async () => {
    const { save, note } = await beginTake(take('a'));
    await save(piece('x'));
    await note({ at: 1 });
    await note({ at: 2 });
    letGoOfTake('a');
    await vi.waitFor(() => expect(held.size).toBe(0));
    const [offered] = await unfinishedTakes('teacher', SHOUT, 'work');
    expect(offered!.notes).toEqual([{ at: 1 }, { at: 2 }]);
    await forgetTake('a');
    expect(await (await browserStore()).getAllKeys('notes')).toEqual([]);
  });

  it('without a single piece is nothing to offer', async () => {
    await beginTake(take('a'));
    letGoOfTake('a');
    await vi.waitFor(() => expect(held.size).toBe(0));
    expect(await unfinishedTakes('teacher', SHOUT, 'work')).toEqual([]);
  });
});

describe('what a take is for', () => {
  const interrupted = async (record: TakeRecord) => {
    const { save: keep } = await beginTake(record);
    await keep(piece('x'));
    letGoOfTake(record.id);
    await vi.waitFor(() => expect(held.size).toBe(0));
    return unfinishedTakes('teacher', SHOUT, 'work');
  };

  it('is open: whoever records says what it has to know, and gets no other kind', async () => {
    expect(await interrupted(take('a'))).toMatchObject([{ about: { loud: 3 } }]);
    const whisper = { type: 'whisper', about: z.unknown() };
    expect(await unfinishedTakes('teacher', whisper, 'work')).toEqual([]);
  });

  it('where it cannot be understood any more, the sound is there all the same', async () => {
    const [offered] = await interrupted(take('a', 'teacher', 'work', { loud: 'very' }));
    expect([offered!.about, offered!.blob.size > 0]).toEqual([undefined, true]);
  });

  it('is carried over from the first version', () => {
    const { version: _, picture: __, ...first } = take('a');
    const purpose = { type: 'remark', submission: 'work', anchor: { type: 'whole' }, kind: 'next', picture: 'camera' };
    expect(readTake({ ...first, purpose })).toEqual({
      ...take('a'),
      picture: 'camera',
      purpose: { type: 'remark', place: 'work', about: { anchor: { type: 'whole' }, kind: 'next' } },
    });
    expect(readTake({ id: 'a' })).toBeUndefined();
  });
});

describe('ChunkKeeper', () => {
  it('hands on in order, also what came before the storage was ready', async () => {
    const saved: string[] = [];
    const keeper = new ChunkKeeper();
    keeper.keep(piece('1'));
    keeper.keep(piece('22'));
    keeper.keepIn((chunk) => Promise.resolve(void saved.push(String(chunk.size))));
    keeper.keep(piece('333'));
    await vi.waitFor(() => expect(saved).toEqual(['1', '2', '3']));
  });

  it('does not fail with a full disk', async () => {
    const save = vi.fn(() => Promise.reject(new DOMException('', 'QuotaExceededError')));
    const keeper = new ChunkKeeper();
    keeper.keepIn(save);
    keeper.keep(piece('1'));
    keeper.keep(piece('2'));
    await vi.waitFor(() => expect(save).toHaveBeenCalledTimes(2));
  });
});
