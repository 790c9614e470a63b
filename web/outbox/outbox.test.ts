// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { PROBLEM_MEDIA_TYPE } from '#contract/problem';
import { useOutbox } from './outbox.ts';
import { useSession } from '../session/session.ts';
import { browserStore } from './browser-store.ts';

const ID = '6f0b3c0e-7d55-4f58-9a52-0d0f0a1b2c3d';
const score = (level: string | null) => ({ type: 'score' as const, criterion: ID, level });

setActivePinia(createPinia());
useSession().person = { id: ID, name: 'Teacher', role: 'teacher' };
const outbox = useOutbox();
const server = vi.fn<typeof fetch>();
vi.stubGlobal('fetch', server);

const accept = () => Promise.resolve(Response.json({ scores: {} }));
const away = () => Promise.reject(new TypeError('Failed to fetch'));
const refuse = (status: number, detail: string) => () =>
  Promise.resolve(
    new Response(JSON.stringify({ type: 'x', title: 'x', status, detail }), {
      status,
      headers: { 'Content-Type': PROBLEM_MEDIA_TYPE },
    }),
  );
const kept = async () => (await browserStore()).getAll('parcels');

beforeEach(async () => {
  server.mockReset();
  await outbox.dropRefused();
});

describe('the outbox', () => {
  it('keeps a change in the browser until the server has it', async () => {
    server.mockImplementation(away);
    await outbox.add(ID, score(ID));
    await vi.waitFor(() => expect(outbox.state.value).toBe('waiting'));
    expect(await kept()).toHaveLength(1);
    expect(outbox.changesFor(ID)).toEqual([score(ID)]);

    server.mockImplementation(accept);
    window.dispatchEvent(new Event('online'));
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    expect(await kept()).toEqual([]);
  });

  it('sends in order, one after the other, and tells who listens', async () => {
    const heard: unknown[] = [];
    const stop = outbox.onSent((_, change) => heard.push(change));
    server.mockImplementation(accept);
    await Promise.all([outbox.add(ID, score(ID)), outbox.add(ID, score(null))]);
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'));
    stop();
    expect(server.mock.calls.map(([, init]) => init?.body)).toEqual([
      JSON.stringify({ level: ID }),
      JSON.stringify({ level: null }),
    ]);
    expect(heard).toEqual([score(ID), score(null)]);
  });

  it('tries again when the server is only unwell, and when somebody has to sign in again', async () => {
    server
      .mockImplementationOnce(refuse(500, 'unwell'))
      .mockImplementationOnce(() => Promise.resolve(new Response('<html>', { status: 502 })));
    server.mockImplementation(accept);
    await outbox.add(ID, score(ID));
    await vi.waitFor(() => expect(outbox.state.value).toBe('saved'), { timeout: 10_000 });
    expect(server).toHaveBeenCalledTimes(3);
  });

  it('sets aside what the server refuses, says why, and goes on with the rest', async () => {
    server.mockImplementationOnce(refuse(409, 'This work has been returned.')).mockImplementation(accept);
    await outbox.add(ID, score(ID));
    await outbox.add(ID, score(null));
    await vi.waitFor(() => expect(outbox.state.value).toBe('refused'));
    expect(outbox.parcels.value).toMatchObject([{ refused: 'This work has been returned.' }]);
    expect(outbox.changesFor(ID)).toEqual([]);
    expect(await kept()).toHaveLength(1);
    await outbox.dropRefused();
    expect([await kept(), outbox.state.value]).toEqual([[], 'saved']);
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

  it('tells of each remark how far it is', async () => {
    server.mockImplementation(away);
    await outbox.add(ID, { type: 'aside', remark: ID, aside: true });
    await vi.waitFor(() => expect(outbox.stateOf(ID)).toBe('waiting'));
    expect(outbox.stateOf('another')).toBe('saved');
  });
});
