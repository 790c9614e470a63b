// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { joinedPlayed, type Span } from '#core/audio';
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { computed, nextTick } from 'vue';
import { usePlayer } from '../player/player.ts';
import { recordingOf } from '../testing/mount.ts';
import { useHeard } from './use-heard.ts';

const LENGTH = 10;
const report = vi.fn();
const recording = recordingOf({ id: 'r' });
const player = usePlayer();
let page: VueWrapper;

async function listen(from: number, to: number, step = 0.25): Promise<void> {
  for (let at = from; at <= to + 1e-9; at += step) {
    player.position.value = at;
    await nextTick();
  }
}
const played = (): Span[] =>
  joinedPlayed(
    report.mock.calls.flatMap(([, spans]) => spans as Span[]),
    LENGTH,
  );
async function pause(): Promise<void> {
  player.playing.value = false;
  await nextTick();
}

beforeEach(async () => {
  report.mockReset();
  player.current.value = undefined;
  player.playing.value = false;
  await nextTick();
  page = mount({
    setup: () =>
      useHeard(
        computed(() => [recording]),
        report,
      ),
    template: '<i />',
  });
  player.position.value = 0;
  player.current.value = 'r';
  player.playing.value = true;
  await nextTick();
});
afterEach(() => page.unmount());

describe('useHeard', () => {
  it('tells when somebody begins', () => {
    expect(report.mock.calls).toEqual([[recording, []]]);
  });

  it('tells what was played, now and then while it goes on, and at a pause', async () => {
    await listen(0, 5.25);
    expect(played()).toEqual([{ start: 0, end: 5 }]);
    await listen(5.5, 6);
    await pause();
    expect(played()).toEqual([{ start: 0, end: 6 }]);
  });

  it('does not take a jump for listening', async () => {
    await listen(0, 1);
    await listen(8, 10);
    await pause();
    expect(played()).toEqual([
      { start: 0, end: 1 },
      { start: 8, end: 10 },
    ]);
  });

  it('counts nothing in a tab that nobody has before them', async () => {
    const hidden = vi.spyOn(document, 'visibilityState', 'get').mockReturnValue('hidden');
    document.dispatchEvent(new Event('visibilitychange'));
    await listen(0, 4);
    hidden.mockRestore();
    document.dispatchEvent(new Event('visibilitychange'));
    await listen(4.25, 5);
    await pause();
    expect(played()).toEqual([{ start: 4, end: 5 }]);
  });

  it('tells what was played when something else is played, or the page is left', async () => {
    await listen(0, 2);
    player.current.value = 'other';
    await nextTick();
    expect(played()).toEqual([{ start: 0, end: 2 }]);
    player.position.value = 0;
    player.current.value = 'r';
    await nextTick();
    await listen(0, 3);
    page.unmount();
    expect(played()).toEqual([{ start: 0, end: 3 }]);
  });
});
