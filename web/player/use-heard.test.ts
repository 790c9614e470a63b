// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { mount } from '@vue/test-utils';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { computed, nextTick } from 'vue';
import { usePlayer } from '../player/player.ts';
import { recordingOf } from '../testing/mount.ts';
import { useHeard } from './use-heard.ts';

const heard = vi.fn();
const recording = recordingOf({ id: 'r' });
const player = usePlayer();

async function listen(from: number, to: number, step = 0.25): Promise<void> {
  for (let at = from; at <= to + 1e-9; at += step) {
    player.position.value = at;
    await nextTick();
  }
}

beforeEach(async () => {
  heard.mockReset();
  player.current.value = undefined;
  player.playing.value = false;
  await nextTick();
  mount({
    setup: () =>
      useHeard(
        computed(() => [recording]),
        heard,
      ),
    template: '<i />',
  });
  player.position.value = 0;
  player.current.value = 'r';
  player.playing.value = true;
  await nextTick();
});

describe('useHeard', () => {
  it('tells when somebody begins', () => {
    expect(heard.mock.calls[0]).toEqual([recording, false]);
  });

  it('tells when nearly all was heard', async () => {
    await listen(0, 8.75);
    expect(heard).not.toHaveBeenCalledWith(recording, true);
    await listen(9, 9.25);
    expect(heard).toHaveBeenCalledWith(recording, true);
  });

  it('does not take a jump to the end for listening', async () => {
    await listen(0, 1);
    await listen(8, 10);
    expect(heard).not.toHaveBeenCalledWith(recording, true);
  });

  it('begins to count anew with another recording', async () => {
    await listen(0, 6);
    player.current.value = 'other';
    await nextTick();
    player.position.value = 0;
    player.current.value = 'r';
    await nextTick();
    await listen(0, 6);
    expect(heard).not.toHaveBeenCalledWith(recording, true);
  });
});
