// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { usePlayer } from '../player/player.ts';
import { recordingOf, remarkOf } from '../testing/mount.ts';
import { useListenThrough, type ListenThrough } from './use-listen-through.ts';

const player = usePlayer();
const lead = vi.fn(() => Promise.resolve());
const spoken = ['a', 'b', 'c'].map((id) => remarkOf({ id, recording: recordingOf({ id: `sound ${id}` }) }));
const remarks = [spoken[0]!, remarkOf({ id: 'written', recording: null }), spoken[1]!, spoken[2]!];
let listening: ListenThrough;
let page: VueWrapper;

const ends = (): boolean => player.element.dispatchEvent(new Event('ended'));
const breathe = (): Promise<unknown> => vi.advanceTimersByTimeAsync(1000);
const hears = (): string | undefined => player.current.value;

beforeEach(() => {
  vi.useFakeTimers();
  vi.spyOn(player.element, 'play').mockImplementation(() => {
    player.playing.value = true;
    return Promise.resolve();
  });
  vi.spyOn(player.element, 'pause').mockImplementation(() => void (player.playing.value = false));
  lead.mockClear();
  page = mount({
    setup: () => void (listening = useListenThrough(() => remarks, lead)),
    template: '<textarea />',
  });
});
afterEach(() => {
  listening.end();
  page.unmount();
  vi.useRealTimers();
});

describe('listening through', () => {
  it('plays what is spoken, one after another, and leads along the work', async () => {
    await listening.begin();
    expect([hears(), listening.place.value, listening.count.value]).toEqual(['sound a', 0, 3]);
    ends();
    await breathe();
    ends();
    await breathe();
    expect(hears()).toBe('sound c');
    expect(lead.mock.calls).toEqual([['a'], ['b'], ['c']]);
    ends();
    await breathe();
    expect(listening.over.value).toBe(true);
    await listening.pauseOrGoOn();
    expect([hears(), listening.over.value]).toEqual(['sound a', false]);
  });

  it('begins at the remark in hand, and at the first where that is written', async () => {
    await listening.begin('c');
    expect(hears()).toBe('sound c');
    await listening.begin('written');
    expect(hears()).toBe('sound a');
  });

  it('pauses, also between two remarks, and steps', async () => {
    await listening.begin();
    await listening.pauseOrGoOn();
    expect(player.playing.value).toBe(false);
    await listening.pauseOrGoOn();
    expect(player.playing.value).toBe(true);
    ends();
    await listening.pauseOrGoOn();
    await breathe();
    expect(hears()).toBe('sound a');
    await listening.step(1);
    expect(hears()).toBe('sound b');
    await listening.step(-1);
    await listening.step(-1);
    expect(hears()).toBe('sound a');
  });

  it('waits where somebody writes an answer', async () => {
    document.body.append(page.element);
    await listening.begin();
    (page.element as HTMLTextAreaElement).focus();
    ends();
    await breathe();
    expect(hears()).toBe('sound a');
    page.element.remove();
  });

  it('plays the moment that a remark is about, and then the remark; a pause in it holds both', async () => {
    page.unmount();
    const moment = { id: 'moment b', url: '/work', start: 2, end: 3 };
    page = mount({
      setup: () =>
        void (listening = useListenThrough(
          () => remarks,
          lead,
          ({ id }) => (id === 'b' ? moment : undefined),
        )),
      template: '<textarea />',
    });
    await listening.begin('b');
    expect([hears(), player.position.value, listening.place.value]).toEqual(['moment b', 2, 1]);
    await listening.pauseOrGoOn();
    expect([hears(), player.playing.value]).toEqual(['moment b', false]);
    await listening.pauseOrGoOn();
    ends();
    await nextTick();
    expect([hears(), listening.place.value]).toEqual(['sound b', 1]);
    ends();
    await breathe();
    expect(hears()).toBe('sound c');
  });

  it('goes on from a remark that is played by hand, and ends with anything else', async () => {
    await listening.begin();
    player.current.value = 'sound c';
    await nextTick();
    expect(listening.place.value).toBe(2);
    player.current.value = 'the message to the class';
    await nextTick();
    expect(listening.now.value).toBeUndefined();
  });

  it('ends in silence', async () => {
    await listening.begin();
    listening.end();
    expect([hears(), player.playing.value, listening.now.value]).toEqual([undefined, false, undefined]);
  });
});
