// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { markRaw, reactive } from 'vue';
import { OTHER_PERSON } from '#contract/problem';
import { z } from 'zod';
import { Refused, Unreachable } from '../session/api.ts';
import { useOutbox } from './outbox.ts';
import { registerSubject } from './subjects.ts';
import { useSession } from '../session/session.ts';
import { browserStore, keepsNothing, STEPS, tryStorage, upgrade } from './browser-store.ts';
import { blobsIn, readParcel, wordsIn } from './parcel.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const note = (text: string) => ({ subject: 'notes', about: ID, touches: [text], change: { text } });

/** A subject of which the outbox knows nothing: it sends what it is given. */
const send = vi.fn<(about: string, change: unknown) => Promise<unknown>>();
registerSubject('notes', () =>
  Promise.resolve({
    read(kept: unknown) {
      const { text } = kept as { text?: string };
      if (text === undefined) throw new Error('no note');
      return { change: { text }, touches: [text] };
    },
    send,
    compare: (change, now) => [
      { what: 'Text', now: (now as { text: string }).text, mine: (change as { text: string }).text },
    ],
    over: (change, now) => ({ ...(change as object), over: (now as { text: string }).text }),
  }),
);

setActivePinia(createPinia());
const TEACHER = { id: ID, name: 'Teacher', teaches: true, learns: false };
const session = useSession();
session.person = TEACHER;
const outbox = useOutbox();

const away = () => Promise.reject(new Unreachable());
const refuse = (status: number, detail: string) => () =>
  Promise.reject(new Refused({ type: 'x', title: 'x', status, detail }));
const kept = async () => (await browserStore()).getAll('parcels');

beforeEach(async () => {
  send.mockReset().mockResolvedValue('taken');
  for (const parcel of outbox.parcels.value) await outbox.discard(parcel);
});

describe('the outbox', () => {
  it('keeps a change in the browser until the server has it', async () => {
    send.mockImplementation(away);
    await outbox.add(note('a'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('waiting'));
    expect(await kept()).toMatchObject([{ version: 2, subject: 'notes', person: ID }]);
    expect(outbox.changesFor('notes', ID)).toEqual([{ text: 'a' }]);
    expect([outbox.changesFor('notes', 'other'), outbox.changesFor('other', ID)]).toEqual([[], []]);

    send.mockResolvedValue('taken');
    window.dispatchEvent(new Event('online'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    expect(await kept()).toEqual([]);
  });

  it('sends in order, one after the other, and tells who listens', async () => {
    const heard: unknown[] = [];
    const stop = outbox.onSent(({ change }, answer) => heard.push([change, answer]));
    await Promise.all([outbox.add(note('a')), outbox.add(note('b'))]);
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    stop();
    expect(send.mock.calls).toEqual([
      [ID, { text: 'a' }],
      [ID, { text: 'b' }],
    ]);
    expect(heard).toEqual([
      [{ text: 'a' }, 'taken'],
      [{ text: 'b' }, 'taken'],
    ]);
  });

  it('has let go of a change when it tells that it was sent, and shows it until then', async () => {
    const seen: unknown[] = [];
    const stop = outbox.onSent(() => seen.push(outbox.changesFor('notes', ID), kept()));
    await outbox.add(note('a'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    stop();
    expect(await Promise.all(seen)).toEqual([[{ text: 'a' }], []]);
  });

  it('tells that another tab has sent a change, and does not send it again', async () => {
    send.mockImplementation(away);
    await outbox.add(note('a'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('waiting'));
    const heard: unknown[] = [];
    const stop = outbox.onSent(({ change }, answer) => heard.push([change, answer]));
    await (await browserStore()).clear('parcels');
    send.mockClear();
    window.dispatchEvent(new Event('online'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    stop();
    expect([send.mock.calls, heard]).toEqual([[], [[{ text: 'a' }, undefined]]]);
  });

  it('tries again when the server is only unwell, and when nobody answers', async () => {
    send.mockImplementationOnce(refuse(500, 'unwell')).mockImplementationOnce(away);
    await outbox.add(note('a'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'), { timeout: 10_000 });
    expect(send).toHaveBeenCalledTimes(3);
  });

  it('sets aside what the server refuses, says why, and goes on with the rest', async () => {
    send.mockImplementationOnce(refuse(409, 'This work has been returned.'));
    await outbox.add(note('a'));
    await outbox.add(note('b'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('refused'));
    expect(outbox.parcels.value).toMatchObject([{ refused: 'This work has been returned.' }]);
    expect(outbox.changesFor('notes', ID)).toEqual([]);
    expect(await kept()).toHaveLength(1);
    await outbox.discard(outbox.parcels.value[0]!);
    expect([await kept(), outbox.state.value]).toEqual([[], 'saved']);
  });

  it('asks its person where somebody else was there, and puts theirs in only then', async () => {
    const crossed = { type: 'x', title: 'x', status: 409, detail: 'Changed meanwhile.', now: { text: 'theirs' } };
    const refuseOnce = () => send.mockImplementationOnce(() => Promise.reject(new Refused(crossed)));
    const heard: unknown[] = [];
    const stop = outbox.onSent((_, answer) => heard.push(answer));
    for (const whose of ['theirs', 'mine'] as const) {
      refuseOnce();
      await outbox.add(note('mine'));
      await vi.waitFor(() => expect(outbox.state.value).toBe('refused'));
      const [parcel] = outbox.parcels.value;
      expect(await outbox.compare(parcel!)).toEqual([{ what: 'Text', now: 'theirs', mine: 'mine' }]);
      await outbox.settleWith(parcel!, whose);
      await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    }
    stop();
    expect(heard).toEqual([undefined, undefined, 'taken']);
    expect(send.mock.calls.at(-1)).toEqual([ID, { text: 'mine', over: 'theirs' }]);
    expect(send).toHaveBeenCalledTimes(3);
    expect(await kept()).toEqual([]);
  });

  it('lets others pass what the server fails at, but for those that go on with it, and tries it again', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: true, advanceTimeDelta: 200 });
    const sent: string[] = [];
    let well = false;
    send.mockImplementation((_, change) => {
      const { text } = change as { text: string };
      if (text === 'bad' && !well) return refuse(500, 'Something went wrong.')();
      sent.push(text);
      return Promise.resolve('taken');
    });
    await outbox.add(note('bad'));
    await outbox.add({ ...note('goes on with it'), touches: ['more', 'bad'] });
    await outbox.add({ ...note('goes on with that'), touches: ['more'] });
    await outbox.add(note('other'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('stuck'), { timeout: 10_000 });
    expect(sent).toEqual(['other']);
    expect(['bad', 'more', 'other'].map(outbox.stateOf)).toEqual(['stuck', 'stuck', 'saved']);
    expect(outbox.stuck.value).toMatchObject([
      { reason: 'Something went wrong.', parcel: { change: { text: 'bad' } } },
    ]);
    expect(outbox.changesFor('notes', ID)).toHaveLength(3);

    outbox.tryAgain();
    await vi.waitFor(() =>
      expect(send.mock.calls.filter(([, change]) => (change as { text: string }).text === 'bad')).toHaveLength(4),
    );
    await vi.waitFor(() => expect(outbox.state.value).toBe('stuck'));
    expect(sent).toEqual(['other']);

    well = true;
    await vi.advanceTimersByTimeAsync(61_000);
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    expect(sent).toEqual(['other', 'bad', 'goes on with it', 'goes on with that']);
    vi.useRealTimers();
  });

  it('waits for its own person where somebody else is signed in, and goes on when they are back', async () => {
    const other = { type: OTHER_PERSON, title: 'x', status: 409, detail: 'Someone else is signed in.' };
    send.mockImplementation(() => Promise.reject(new Refused(other)));
    await outbox.add(note('a'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('otherPerson'));
    expect(await kept()).toMatchObject([{ person: ID, change: { text: 'a' } }]);
    send.mockResolvedValue('taken');
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'), { timeout: 5000 });
  });

  it('is not held up by an answer or by code that breaks: that parcel steps aside and says so', async () => {
    const broken = [new TypeError('undefined is not a function'), z.object({ id: z.string() }).safeParse({}).error!];
    for (const error of broken) {
      send.mockImplementation((_, change) =>
        (change as { text: string }).text === 'odd' ? Promise.reject(error) : Promise.resolve('taken'),
      );
      await outbox.add(note('odd'));
      await outbox.add(note('next'));
      await vi.waitFor(() => expect(outbox.state.value).toBe('stuck'));
      expect([outbox.stateOf('odd'), outbox.stateOf('next')]).toEqual(['stuck', 'saved']);
      expect(outbox.stuck.value).toHaveLength(1);
      send.mockResolvedValue('taken');
      outbox.tryAgain();
      await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    }
  });

  it('lets its person decide about each that was refused, by itself', async () => {
    send.mockImplementation(refuse(409, 'This work has been returned.'));
    await outbox.add(note('a'));
    await outbox.add(note('b'));
    await vi.waitFor(() => expect(outbox.parcels.value.filter(({ refused }) => refused)).toHaveLength(2));
    const [a, b] = outbox.parcels.value;
    await outbox.discard(a!);
    expect(await kept()).toMatchObject([{ change: { text: 'b' } }]);
    send.mockResolvedValue('taken');
    await outbox.sendAgain(b!);
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    expect(await kept()).toEqual([]);
  });

  it('keeps what is reactive, too', async () => {
    send.mockImplementation(away);
    const blob = new Blob(['sound']);
    await outbox.add({ ...note('a'), change: reactive({ text: 'a', said: [{ kind: 'next' }], blob: markRaw(blob) }) });
    expect(keepsNothing.value).toBe(false);
    expect(await kept()).toMatchObject([{ change: { text: 'a', said: [{ kind: 'next' }] } }]);
  });

  it('sends what the browser refuses to keep, and says that it keeps nothing', async () => {
    const add = vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    await outbox.add(note('a'));
    expect(keepsNothing.value).toBe(true);
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    expect(send).toHaveBeenCalledWith(ID, { text: 'a' });
    add.mockRestore();
    expect([await tryStorage(), keepsNothing.value]).toEqual([true, false]);
  });

  it('counts what is being made as on its way, for all and for the one remark', async () => {
    expect([outbox.state.value, outbox.stateOf('fresh')]).toEqual(['saved', 'saved']);
    outbox.announce('fresh');
    expect([outbox.state.value, outbox.stateOf('fresh'), outbox.stateOf('other')]).toEqual([
      'saving',
      'saving',
      'saved',
    ]);
    outbox.settle('fresh');
    expect(outbox.state.value).toBe('saved');
  });

  it('tells of each thing how far it is', async () => {
    send.mockImplementation(away);
    await outbox.add(note('a'));
    await vi.waitFor(() => expect(outbox.stateOf('a')).toBe('waiting'));
    expect(outbox.stateOf('another')).toBe('saved');
    send.mockResolvedValue('taken');
    window.dispatchEvent(new Event('online'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
  });
});

describe('what an earlier page left behind', () => {
  const comeBack = async (): Promise<void> => {
    session.person = null;
    await vi.waitFor(() => expect(outbox.parcels.value).toEqual([]));
    session.person = TEACHER;
  };

  it('is sent, whoever it was about', async () => {
    await (await browserStore()).add('parcels', { ...note('left'), version: 2, person: ID });
    await (await browserStore()).add('parcels', { ...note('another’s'), version: 2, person: 'somebody else' });
    await comeBack();
    await vi.waitFor(() => expect(send).toHaveBeenCalledWith(ID, { text: 'left' }));
    await vi.waitFor(async () => expect(await kept()).toHaveLength(1));
    await (await browserStore()).clear('parcels');
  });

  it('is offered where it cannot be understood, and is there until somebody has seen that', async () => {
    const odd = { ...note('x'), change: { from: 'the future' }, version: 2, person: ID };
    await (await browserStore()).add('parcels', odd);
    await comeBack();
    await vi.waitFor(() => expect(outbox.state.value).toBe('refused'));
    expect(outbox.parcels.value[0]!.refused).toContain('older version');
    expect(await kept()).toHaveLength(1);
    expect(send).not.toHaveBeenCalled();
  });

  it('has its bytes found wherever they are, so that they can be saved', () => {
    const [a, b] = [new Blob(['a']), new Blob(['b'])];
    expect(blobsIn({ sound: { blob: a, peaks: [1] }, files: [b], none: null })).toEqual([a, b]);
  });

  it('has what was written found wherever it is', () => {
    const said = { text: 'Well seen.', link: null, suggestion: 'tide', tags: ['x'] };
    const author = { id: 'x', name: 'Tamsin' };
    expect(wordsIn({ type: 'make', id: 'not words', author, said, text: 'Well seen.' })).toEqual([
      'Well seen.',
      'tide',
    ]);
  });

  it('a page of the first version wrote of feedback only', () => {
    const first = { key: 7, person: ID, submission: 'work', change: { type: 'score' }, refused: 'no' };
    expect(readParcel(first)).toEqual({
      writtenIn: 1,
      parcel: {
        ...{ key: 7, version: 2, person: ID, subject: 'feedback', about: 'work', touches: [] },
        change: { type: 'score' },
      },
    });
    expect(readParcel({ key: 7 })).toBeUndefined();
  });
});

describe('the browser’s storage', () => {
  it('is brought from the first version to this one without losing anything', async () => {
    const name = 'vivid-margin-of-yesterday';
    const old = await openDB(name, 1, { upgrade: (db, _from, _to, tx) => STEPS[0]!(db as never, tx as never) });
    await old.add('parcels', { person: ID, submission: 'work', change: {} });
    await old.put('takes', { id: 't', person: ID });
    old.close();
    const now = await openDB(name, STEPS.length, {
      upgrade: (db, from, _to, tx) => upgrade(db as never, from, tx as never),
    });
    expect(await now.getAllFromIndex('parcels', 'person', ID)).toHaveLength(1);
    expect(await now.getAllFromIndex('takes', 'person', ID)).toHaveLength(1);
    now.close();
  });
});
