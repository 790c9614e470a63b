// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { mount, type VueWrapper } from '@vue/test-utils';
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Refused, Unreachable } from '../session/refused.ts';

setActivePinia(createPinia());
const server = { html: '', changedAt: null as string | null };
let away = false;
const call = vi.fn(
  (endpoint: { method: string }, { body }: { body?: { html: string; over: string | null } }): Promise<unknown> => {
    if (away) return Promise.reject(new Unreachable());
    if (endpoint.method === 'GET') return Promise.resolve({ ...server });
    if (body!.over !== server.changedAt && body!.html !== server.html)
      return Promise.reject(new Refused({ type: '', title: '', status: 409, detail: 'Changed.', now: { ...server } }));
    server.html = body!.html;
    server.changedAt = new Date(Date.now()).toISOString();
    return Promise.resolve({ changedAt: server.changedAt });
  },
);
vi.mock('../session/api.ts', () => ({ call: (...args: Parameters<typeof call>) => call(...args) }));
const { useTyped } = await import('./use-typed.ts');

let page: VueWrapper;
let typed: ReturnType<typeof useTyped>;
const wait = (milliseconds: number): Promise<unknown> => vi.advanceTimersByTimeAsync(milliseconds);
async function open(assignment = 'a'): Promise<void> {
  page = mount({ setup: () => void (typed = useTyped(assignment)), template: '<i />' });
  await wait(0);
}

beforeEach(() => {
  vi.useFakeTimers();
  localStorage.clear();
  Object.assign(server, { html: '', changedAt: null });
  away = false;
  call.mockClear();
});
afterEach(() => {
  page.unmount();
  vi.useRealTimers();
});

describe('a work while it is typed', () => {
  it('is kept by the server soon after, all of it', async () => {
    await open();
    typed.write('<p>a</p>');
    typed.write('<p>ab</p>');
    await wait(2000);
    expect([server.html, typed.state.value]).toEqual(['<p>ab</p>', 'saved']);
    expect(call.mock.calls.filter(([{ method }]) => method === 'PUT')).toHaveLength(1);
  });

  it('survives a page that is closed without a network, and goes to the server later', async () => {
    await open();
    away = true;
    typed.write('<p>typed on a train</p>');
    await wait(2000);
    expect(typed.state.value).toBe('waiting');
    page.unmount();
    await open();
    expect(typed.opened.value).toBe('<p>typed on a train</p>');
    away = false;
    await wait(6000);
    expect([server.html, typed.state.value]).toEqual(['<p>typed on a train</p>', 'saved']);
  });

  it('asks which one to go on with, where another window has kept something else', async () => {
    await open();
    Object.assign(server, { html: '<p>theirs</p>', changedAt: '2026-01-01T00:00:00.000Z' });
    typed.write('<p>mine</p>');
    await wait(2000);
    expect([typed.state.value, typed.theirs.value?.html, server.html]).toEqual([
      'conflict',
      '<p>theirs</p>',
      '<p>theirs</p>',
    ]);
    typed.write('<p>mine, longer</p>');
    await wait(10_000);
    expect(server.html).toBe('<p>theirs</p>');
    await typed.choose('mine');
    expect([server.html, typed.state.value]).toEqual(['<p>mine, longer</p>', 'saved']);
  });

  it('opens the other one where that is chosen', async () => {
    await open();
    Object.assign(server, { html: '<p>theirs</p>', changedAt: '2026-01-01T00:00:00.000Z' });
    typed.write('<p>mine</p>');
    await wait(2000);
    await typed.choose('theirs');
    expect([typed.opened.value, server.html]).toEqual(['<p>theirs</p>', '<p>theirs</p>']);
    typed.write('<p>theirs, longer</p>');
    await wait(2000);
    expect(server.html).toBe('<p>theirs, longer</p>');
  });

  it('says why something cannot be kept, and tries again with the next words', async () => {
    await open();
    call.mockImplementationOnce(() =>
      Promise.reject(new Refused({ type: '', title: '', status: 400, detail: 'This text is too long.' })),
    );
    typed.write('<p>long</p>');
    await wait(2000);
    expect([typed.state.value, typed.refusal.value]).toEqual(['refused', 'This text is too long.']);
    typed.write('<p>short</p>');
    await wait(2000);
    expect([typed.state.value, server.html]).toEqual(['saved', '<p>short</p>']);
  });
});
