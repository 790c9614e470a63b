// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { nextTick } from 'vue';
import { usePlayer } from '../player/player.ts';
import { mountInApp, recordingOf } from '../testing/mount.ts';
import PracticeLines from './PracticeLines.vue';
import { useInTurn } from './use-in-turn.ts';

const player = usePlayer();
const parts = [
  { id: 'theirs', url: '/theirs', start: 1, end: 2 },
  { id: 'mine', url: '/mine', start: 0, end: 3 },
];
let turns: ReturnType<typeof useInTurn>;
let page: VueWrapper;
const ends = async (): Promise<void> => {
  player.element.dispatchEvent(new Event('ended'));
  await nextTick();
};

beforeEach(() => {
  vi.spyOn(player.element, 'play').mockResolvedValue();
  vi.spyOn(player.element, 'pause').mockReturnValue();
  page = mount({ setup: () => void (turns = useInTurn()), template: '<i />' });
});
afterEach(() => page.unmount());

describe('parts of recordings in turn', () => {
  it('are played one after the other, each from where it begins', async () => {
    await turns.play('line', parts);
    expect([player.current.value, player.position.value, turns.going.value]).toEqual(['theirs', 1, 'line']);
    await ends();
    expect([player.current.value, player.position.value]).toEqual(['mine', 0]);
    await ends();
    expect(turns.going.value).toBeUndefined();
  });

  it('end when they are stopped, and when the page goes', async () => {
    await turns.play('line', parts);
    turns.stop();
    await ends();
    expect([player.current.value, turns.going.value]).toEqual([undefined, undefined]);
    await turns.play('line', parts);
    page.unmount();
    expect(player.current.value).toBeUndefined();
  });
});

describe('practice beside a recording of the teacher', () => {
  const word = (text: string, start: number) => ({ word: text, start, end: start + 0.4 });
  const transcript = {
    ...({
      language: 'en',
      source: 'person',
      engine: '',
      approximate: false,
      read: true,
      text: 'One. Two. Three.',
    } as const),
    words: [word('One.', 0), word('Two.', 1), word('Three.', 2)],
  };
  const take = (peaks: number[]) => ({
    ...{ id: 'take', name: 'Take 1', blob: new Blob(), url: 'blob:take', chosen: true },
    sound: { sha256: '', duration: 6, peaks, picture: null, microphone: { type: 'device' as const } },
  });
  const open = (peaks: number[]): VueWrapper =>
    mountInApp(PracticeLines, { model: recordingOf({ id: 'theirs', transcript }), take: take(peaks) });

  it('plays a line of the teacher, and then the same of one’s own, which is known by its pauses', async () => {
    const view = open([200, 200, 1, 1, 200, 200, 1, 1, 200, 200, 200, 200]);
    await view.get('[aria-label^="Line 2"]').trigger('click');
    await nextTick();
    expect([player.current.value, player.position.value]).toEqual(['theirs', 1]);
    await ends();
    expect([player.current.value, player.position.value]).toEqual(['take', 1.5]);
    expect(view.text()).not.toContain('fewer pauses');
    view.unmount();
  });

  it('says so where pauses are missing, and offers no line that is not there', () => {
    const view = open([200, 200, 1, 1, 200, 200]);
    expect(view.findAll('li button')).toHaveLength(2);
    expect(view.text()).toContain('fewer pauses');
    view.unmount();
  });
});
