// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { packPoints } from '#core/ink';
import type { Track } from '#contract/talk';
import { mount, type VueWrapper } from '@vue/test-utils';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { inject, nextTick, ref, shallowRef, type ComputedRef } from 'vue';
import { PERFORMANCE, type Along, type PerformancePart } from '../folio/performance.ts';
import { SHOWN_INK, type ShownInk } from '../ink/shown-ink.ts';
import { usePlayer } from '../player/player.ts';
import { recordingOf, remarkOf } from '../testing/mount.ts';
import { trackOf } from './track-of.ts';
import { useTalkShow, type TalkShow } from './use-talk-show.ts';

const points = packPoints([
  { x: 10, y: 10, pressure: 0.5, at: 0 },
  { x: 900, y: 10, pressure: 0.5, at: 2 },
]);
const stroke = { tool: 'pen', colour: 'ink', width: 20, points } as const;
const region = (x: number) => ({ type: 'region', leaf: 0, x, y: 0.1, width: 0.1, height: 0.1 }) as const;
const TALK: Track = [
  { type: 'kind', at: 0, kind: 'strength' },
  { type: 'select', at: 2, anchor: region(0.1) },
  { type: 'stroke', at: 4, placed: { leaf: 0, stroke } },
  { type: 'kind', at: 5, kind: 'repair' },
  { type: 'select', at: 8, anchor: region(0.5) },
  { type: 'perform', at: 10, leaf: 1, from: 30 },
  { type: 'halt', at: 12 },
  { type: 'stroke', at: 13, placed: { leaf: 0, stroke } },
  { type: 'erase', at: 15, stroke: 1 },
];
const talked = remarkOf({ id: 'talk', kind: 'next', talk: TALK, recording: recordingOf({ id: 'voice' }) });
const other = remarkOf({ id: 'other', recording: recordingOf({ id: 'other voice' }) });

const player = usePlayer();
const focused = ref<string>();
let show: TalkShow;
let ink: ShownInk;
let performance: PerformancePart;
let page: VueWrapper;
const root = shallowRef<Element | null>(null);

/** As if the talk-through had played so far. */
async function at(seconds: number): Promise<void> {
  player.current.value = 'voice';
  player.playing.value = true;
  player.position.value = seconds;
  await nextTick();
}
/** How much of each stroke is shown: nothing, all, or seconds of it. */
const drawn = (): (number | string)[] =>
  ink.strokes.value.map(({ until }) => (until === undefined ? 'all' : until < 0 ? 'none' : until));

beforeEach(() => {
  vi.spyOn(player.element, 'play').mockResolvedValue();
  vi.spyOn(player.element, 'pause').mockImplementation(() => undefined);
  player.stop();
  player.playing.value = false;
  focused.value = undefined;
  page = mount({
    setup() {
      show = useTalkShow({ remarks: () => [other, talked], focused: () => focused.value, root: () => root.value });
      return () => null;
    },
  });
  const child = mount({
    setup() {
      ink = inject(SHOWN_INK)!;
      performance = inject(PERFORMANCE)!;
      return () => null;
    },
  }, { global: { provide: (page.vm.$ as unknown as { provides: Record<symbol, unknown> }).provides as never } }); // prettier-ignore
  void child;
});
afterEach(() => page.unmount());

describe('a talk-through on the page', () => {
  it('is not there until it is in hand or heard; in hand, all of it is shown', async () => {
    expect([show.remark.value, ink.strokes.value, show.marks.value]).toEqual([undefined, [], []]);
    focused.value = 'talk';
    await nextTick();
    expect(drawn()).toEqual(['all', 'none']);
    expect(show.marks.value.map(({ kind }) => kind)).toEqual(['repair', 'repair']);
    expect(show.lit.value).toBeUndefined();
  });

  it('grows with the voice: passages light up, strokes are drawn, and rubbed out', async () => {
    await at(1);
    expect([drawn(), show.marks.value.length]).toEqual([['none', 'none'], 0]);
    await at(5);
    expect([drawn(), show.marks.value.length, show.lit.value]).toEqual([[1, 'none'], 1, show.marks.value[0]!.id]);
    await at(9);
    expect([drawn(), show.lit.value]).toEqual([['all', 'none'], show.marks.value[1]!.id]);
    await at(14);
    expect(drawn()).toEqual(['all', 1]);
    await at(16);
    expect(drawn()).toEqual(['all', 'none']);
  });

  it('does not draw anew what has not changed', async () => {
    await at(9);
    const before = ink.strokes.value;
    await at(9.5);
    expect(ink.strokes.value).toBe(before);
  });

  it('is heard from what is pressed, a moment before', async () => {
    focused.value = 'talk';
    await nextTick();
    const [, second] = show.marks.value;
    expect(show.pick('other')).toBe(false);
    expect(show.pick(second!.id)).toBe(true);
    expect([player.current.value, player.position.value]).toEqual(['voice', 7]);
    ink.pick!(0);
    expect(player.position.value).toBe(3.5);
  });

  it('has the student’s recording play along where it did, and lets each be heard alone', async () => {
    const along = performance.along(1) as ComputedRef<Along | undefined>;
    await at(9);
    expect(along.value).toBeUndefined();
    await at(11);
    player.element.currentTime = 11;
    expect(along.value).toMatchObject({ playing: true, muted: false });
    expect(along.value!.position()).toBeCloseTo(31);
    show.hear('voice');
    expect([along.value!.muted, player.element.muted]).toEqual([true, false]);
    show.hear('performance');
    await nextTick();
    expect([along.value!.muted, player.element.muted]).toEqual([false, true]);
    await at(12.5);
    expect(along.value).toBeUndefined();
    show.hear('both');
  });

  it('is followed until somebody goes elsewhere, and again when they want', async () => {
    document.body.innerHTML = '<div class="scroller"><article></article></div>';
    root.value = document.querySelector('article');
    await at(5);
    expect(show.following.value).toBe(true);
    root.value!.dispatchEvent(new Event('wheel', { bubbles: true }));
    expect(show.following.value).toBe(false);
    show.follow();
    expect(show.following.value).toBe(true);
    root.value = null;
  });
});

describe('what was noted while somebody spoke', () => {
  it('becomes a track in the order of time, beside the sound that is heard', () => {
    const edit = { kept: [{ start: 1, end: 9 }], levelled: true };
    const notes = [
      { type: 'halt', at: 5 },
      { type: 'select', at: 3, anchor: region(0.1) },
    ];
    expect(trackOf(notes, edit).map(({ type, at: moment }) => [type, moment])).toEqual([['select', 2], ['halt', 4]]); // prettier-ignore
  });

  it('leaves out what cannot be understood, and keeps the rest', () => {
    expect(trackOf([{ type: 'dance' }, null, { type: 'halt', at: 1 }], null)).toEqual([{ type: 'halt', at: 1 }]);
  });

  it('gives up views first where it is too much', () => {
    const views = Array.from({ length: 6000 }, (_, index) => ({ type: 'view', at: index / 10, leaf: 0, share: 0.5 }));
    const track = trackOf([...views, { type: 'select', at: 700, anchor: region(0.2) }], null);
    expect(track.map(({ type }) => type)).toEqual(['select']);
  });
});
