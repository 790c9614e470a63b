// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { OTHER_PERSON } from '#contract/problem';
import { Refused, Unreachable } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import { browserStore, keepsNothing } from './browser-store.ts';
import { useOutbox } from './outbox.ts';
import { isInMemory, parcelStore } from './parcel-store.ts';
import { loadSubjects, registerSubject, subjectOf } from './subjects.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const note = (text: string, touches = [text]) => ({ subject: 'notes', about: ID, touches, change: { text } });

const send = vi.fn<(about: string, change: unknown) => Promise<unknown>>();
const textOf = (change: unknown): string => (change as { text: string }).text;
/** A subject that knows nothing of others. */
registerSubject('notes', () =>
  Promise.resolve({
    read: (change: unknown, writtenIn) => ({
      change: { text: `${textOf(change)} of ${writtenIn}` },
      touches: ['read'],
    }),
    send,
  }),
);
registerSubject('feedback', () => subjectOf('notes'));

setActivePinia(createPinia());
const TEACHER = { id: ID, name: 'Teacher', teaches: true, learns: false };
const session = useSession();
session.person = TEACHER;
const outbox = useOutbox();

const away = () => Promise.reject(new Unreachable());
const refuse =
  (status: number, type = 'x', now?: unknown) =>
  () =>
    Promise.reject(
      new Refused({ type, title: 'x', status, detail: `No: ${status}`, ...(now !== undefined && { now }) }),
    );
const inStore = async () => (await browserStore()).getAll('parcels');
/** `Promise.withResolvers`, which Node 20 has not. */
function withResolvers<T>(): { promise: Promise<T>; resolve: (value: T) => void } {
  let resolve!: (value: T) => void;
  const promise = new Promise<T>((done) => (resolve = done));
  return { promise, resolve };
}
/** One that the test answers when it likes. */
function pending(): () => void {
  const { promise, resolve } = withResolvers<unknown>();
  send.mockImplementationOnce(() => promise);
  return () => resolve('taken');
}
const leaves = (): boolean => window.dispatchEvent(new Event('beforeunload', { cancelable: true }));

beforeEach(async () => {
  send.mockReset().mockResolvedValue('taken');
  for (const parcel of outbox.parcels.value) await outbox.discard(parcel);
  window.dispatchEvent(new Event('online'));
  await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
  send.mockClear();
});
afterEach(() => {
  vi.restoreAllMocks();
  vi.useRealTimers();
});

describe('how far a change is', () => {
  it('is said while it is on its way, of all and of each thing that it touches', async () => {
    const answer = pending();
    await outbox.add(note('a', ['a', 'b']));
    expect([outbox.state.value, outbox.stateOf('a'), outbox.stateOf('b'), outbox.stateOf('c')]).toEqual([
      ...['saving', 'saving', 'saving', 'saved'],
    ]);
    answer();
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
  });

  it('is “saving” beside one that is stuck, and “stuck” for what is touched by both', async () => {
    send.mockRejectedValueOnce(new TypeError('broken'));
    await outbox.add(note('odd', ['a', 'b']));
    await vi.waitFor(() => expect(outbox.state.value).toBe('stuck'));
    const answer = pending();
    await outbox.add(note('fine', ['c']));
    await vi.waitFor(() => expect(send).toHaveBeenCalledTimes(2));
    expect(['a', 'b', 'c'].map(outbox.stateOf)).toEqual(['stuck', 'stuck', 'saving']);
    expect(outbox.state.value).toBe('saving');
    await outbox.add(note('goes on', ['b', 'd']));
    await outbox.add(note('beside', ['e']));
    expect(['d', 'e'].map(outbox.stateOf)).toEqual(['stuck', 'saving']);
    answer();
    await vi.waitFor(() => expect(['c', 'e'].map(outbox.stateOf)).toEqual(['saved', 'saved']));
    expect(outbox.state.value).toBe('stuck');
  });

  it.each([
    [refuse(401), 'signedOut'],
    [refuse(429), 'waiting'],
    [refuse(408), 'waiting'],
    [refuse(503), 'waiting'],
    [refuse(409, OTHER_PERSON), 'otherPerson'],
    [away, 'waiting'],
    [refuse(403), 'refused'],
    [refuse(422), 'refused'],
  ] as const)('follows what stops it: case %#', async (answer, state) => {
    send.mockImplementation(answer);
    await outbox.add(note('a'));
    await vi.waitFor(() => expect(outbox.state.value).toBe(state));
    expect(outbox.stateOf('a')).toBe(state);
    expect(await inStore()).toHaveLength(1);
  });

  it.each([401, 429, 408])('never becomes a refusal because of %i', async (status) => {
    vi.useFakeTimers({ shouldAdvanceTime: true });
    send.mockImplementation(refuse(status));
    await outbox.add(note('a'));
    await vi.waitFor(() => expect(send).toHaveBeenCalledTimes(1));
    for (let times = 0; times < 6; times++) await vi.advanceTimersByTimeAsync(15_000);
    expect(outbox.parcels.value.map(({ refused }) => refused)).toEqual([undefined]);
    // A server that fails at one parcel is asked about it less often than one that lets nobody in.
    expect(outbox.stuck.value).toHaveLength(status === 408 ? 1 : 0);
  });
});

describe('trying again', () => {
  it('takes longer each time, up to a quarter of a minute, and starts over once something was sent', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: false });
    send.mockImplementation(away);
    const times: number[] = [];
    const began = Date.now();
    send.mockImplementation(() => (times.push(Math.round((Date.now() - began) / 1000)), away()));
    void outbox.add(note('a'));
    for (let second = 0; second < 470; second++) await vi.advanceTimersByTimeAsync(100);
    expect(times).toEqual([0, 1, 3, 7, 15, 30, 45]);
    send.mockResolvedValue('taken');
    for (let second = 0; second < 150; second++) await vi.advanceTimersByTimeAsync(100);
    expect(outbox.state.value).toBe('saved');
    times.length = 0;
    const again = Date.now();
    send.mockImplementation(() => (times.push(Math.round((Date.now() - again) / 1000)), away()));
    void outbox.add(note('b'));
    for (let second = 0; second < 20; second++) await vi.advanceTimersByTimeAsync(100);
    expect(times).toEqual([0, 1]);
  });

  it('is three times in a row at one that the server fails at, before the others pass it', async () => {
    vi.useFakeTimers({ shouldAdvanceTime: false });
    const asked: string[] = [];
    send.mockImplementation((_, change) => {
      asked.push(textOf(change));
      return textOf(change) === 'bad' ? refuse(500)() : Promise.resolve('taken');
    });
    void outbox.add(note('bad'));
    void outbox.add(note('other'));
    for (let step = 0; step < 20; step++) await vi.advanceTimersByTimeAsync(100);
    expect([asked, outbox.state.value]).toEqual([['bad', 'bad'], 'waiting']);
    for (let step = 0; step < 20; step++) await vi.advanceTimersByTimeAsync(100);
    expect(asked).toEqual(['bad', 'bad', 'bad', 'other']);
    expect(outbox.state.value).toBe('stuck');
  });
});

describe('a refusal', () => {
  it('because another person was there is settled without a comparison where there is none to make', async () => {
    send.mockImplementationOnce(refuse(409, 'x', { text: 'theirs' }));
    await outbox.add(note('mine'));
    await vi.waitFor(() => expect(outbox.stateOf('mine')).toBe('refused'));
    const [parcel] = outbox.parcels.value;
    expect(parcel).toMatchObject({ now: { text: 'theirs' } });
    expect(await outbox.compare(parcel!)).toEqual([]);
    await outbox.settleWith(parcel!, 'mine');
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    expect(send).toHaveBeenLastCalledWith(ID, { text: 'mine' });
  });

  it('for another reason tells nobody that something has arrived, and has nothing to compare', async () => {
    const heard = vi.fn();
    const stop = outbox.onSent(heard);
    send.mockImplementationOnce(refuse(409));
    await outbox.add(note('a'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('refused'));
    const [parcel] = outbox.parcels.value;
    expect(heard).not.toHaveBeenCalled();
    expect('now' in parcel!).toBe(false);
    expect(await outbox.compare(parcel!)).toEqual([]);
    await outbox.sendAgain(parcel!);
    await vi.waitFor(() => expect(heard).toHaveBeenCalledTimes(1));
    stop();
    await outbox.add(note('b'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    expect(heard).toHaveBeenCalledTimes(1);
  });
});

describe('leaving the page', () => {
  it('is free while everything is saved or on its way, and asked about where it might be lost', async () => {
    expect(leaves()).toBe(true);
    const answer = pending();
    await outbox.add(note('a'));
    expect(leaves()).toBe(true);
    answer();
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    send.mockRejectedValueOnce(new TypeError('broken'));
    await outbox.add(note('odd'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('stuck'));
    expect(leaves()).toBe(false);
    await outbox.discard(outbox.parcels.value[0]!);
    send.mockImplementationOnce(away);
    await outbox.add(note('b'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('waiting'));
    expect(leaves()).toBe(false);
  });

  it('is asked about while something is made or sent that the browser does not keep', async () => {
    outbox.announce('fresh');
    expect(leaves()).toBe(true);
    keepsNothing.value = true;
    expect(leaves()).toBe(false);
    outbox.settle('fresh');
    expect(leaves()).toBe(true);
    keepsNothing.value = false;
    const full = vi.spyOn(IDBObjectStore.prototype, 'add').mockImplementation(() => {
      throw new DOMException('full', 'QuotaExceededError');
    });
    const answer = pending();
    await outbox.add(note('a'));
    full.mockRestore();
    keepsNothing.value = false;
    expect(outbox.parcels.value.map(isInMemory)).toEqual([true]);
    expect(leaves()).toBe(false);
    answer();
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    expect(send).toHaveBeenCalledTimes(1);
  });
});

describe('what is there when a person comes', () => {
  const come = (person: typeof TEACHER | null): void => void (session.person = person);

  it('is carried over to this version in the browser, too, and what is no parcel is left alone', async () => {
    send.mockImplementation(refuse(422));
    const store = await browserStore();
    await store.add('parcels', { person: ID, submission: 'work', change: { text: 'first' } });
    await store.add('parcels', { person: ID, nothing: true });
    await store.add('parcels', { ...note('second'), version: 2, person: ID });
    const put = vi.spyOn(parcelStore, 'put');
    come(null);
    await vi.waitFor(() => expect(outbox.parcels.value).toEqual([]));
    come(TEACHER);
    await vi.waitFor(() => expect(outbox.parcels.value).toHaveLength(2));
    expect(outbox.parcels.value).toMatchObject([
      { version: 2, subject: 'feedback', about: 'work', touches: ['read'], change: { text: 'first of 1' } },
      { subject: 'notes', change: { text: 'second of 2' } },
    ]);
    const [carried] = await inStore();
    expect(carried).toMatchObject({ version: 2, change: { text: 'first of 1' } });
    expect(put.mock.calls.filter(([{ refused }]) => refused === undefined)).toHaveLength(1);
    await store.clear('parcels');
  });

  it('does not come twice where it was added while the browser was asked', async () => {
    come(null);
    await vi.waitFor(() => expect(outbox.parcels.value).toEqual([]));
    send.mockImplementation(away);
    const { promise, resolve } = withResolvers<unknown>();
    const of = parcelStore.of;
    vi.spyOn(parcelStore, 'of').mockImplementation(async (person) => {
      await promise;
      return of(person);
    });
    come(TEACHER);
    await vi.waitFor(() => expect(parcelStore.of).toHaveBeenCalled());
    await outbox.add(note('a'));
    resolve(null);
    await vi.waitFor(() => expect(outbox.state.value).toBe('waiting'));
    await vi.waitFor(() => expect(parcelStore.of).toHaveResolved());
    expect(outbox.parcels.value.map(({ change }) => change)).toEqual([{ text: 'a' }]);
  });

  it('is not shown to the next person who signs in meanwhile', async () => {
    await (await browserStore()).add('parcels', { ...note('hers'), version: 2, person: ID });
    come(null);
    await vi.waitFor(() => expect(outbox.parcels.value).toEqual([]));
    const { promise, resolve } = withResolvers<unknown>();
    const of = parcelStore.of;
    vi.spyOn(parcelStore, 'of').mockImplementationOnce(async (person) => {
      await promise;
      return of(person);
    });
    come(TEACHER);
    await vi.waitFor(() => expect(parcelStore.of).toHaveBeenCalledTimes(1));
    come({ ...TEACHER, id: 'another' });
    come(null);
    resolve(null);
    await vi.waitFor(() => expect(parcelStore.of).toHaveResolved());
    await new Promise((done) => setTimeout(done, 20));
    expect([outbox.parcels.value, send.mock.calls]).toEqual([[], []]);
    await (await browserStore()).clear('parcels');
    come(TEACHER);
  });
});

describe('subjects', () => {
  it('are known by name, loaded together, and one that does not come stops no other', async () => {
    const [good, bad] = [vi.fn(() => Promise.resolve({} as never)), vi.fn(() => Promise.reject(new Error('gone')))];
    registerSubject('bad', bad);
    registerSubject('good', good);
    await expect(loadSubjects()).resolves.toBeUndefined();
    expect([good.mock.calls.length, bad.mock.calls.length]).toEqual([1, 1]);
    await expect(subjectOf('nobody')).rejects.toThrow('nobody');
  });
});
