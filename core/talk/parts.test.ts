import { describe, expect, it } from 'vitest';
import { passageAnchor, type Anchor } from '../anchor/anchor.ts';
import { packPoints, type PlacedStroke } from '../ink/index.ts';
import { mergeWithNext, moveStart, nearestPause, nextPause, partsOf, splitAt } from './parts.ts';
import type { Track } from './track.ts';

const TEXT = `${'The tide comes in twice a day. '.repeat(20)}The mud stays where it is.`;
const LEAVES = [
  { kind: 'text', file: 0, label: 'Text', start: 0, end: TEXT.length, blocks: [] },
  { kind: 'picture', file: 0, label: 'Picture', start: TEXT.length, end: TEXT.length, width: 800, height: 600 },
];
const PAPER = { text: TEXT, leaves: LEAVES } as unknown as Parameters<typeof partsOf>[2];
const passage = (start: number, end: number): Anchor => passageAnchor(TEXT, start, end)!;
const select = (at: number, anchor: Anchor) => ({ type: 'select', at, anchor }) as const;

const look = { tool: 'pen', colour: 'ink', width: 20 } as const;
const points = packPoints([
  { x: 100, y: 100, pressure: 0.5, at: 0 },
  { x: 900, y: 700, pressure: 0.5, at: 1 },
]);
const onWords = (start: number, end: number): PlacedStroke => ({
  leaf: 0,
  held: { start, end, stroke: { ...look, points, hold: { type: 'free', start: 0 } } },
});
const onPicture = (x: number): PlacedStroke => ({
  leaf: 1,
  stroke: { ...look, points: packPoints([{ x, y: 500, pressure: 0.5, at: 0 }, { x: x + 200, y: 600, pressure: 0.5, at: 1 }]) }, // prettier-ignore
});
const drawn = (at: number, placed: PlacedStroke) => ({ type: 'stroke', at, placed }) as const;

const PAUSES = [
  { start: 4, end: 5 },
  { start: 9, end: 10 },
  { start: 14, end: 14.4 },
];
const heard = { duration: 20, pauses: PAUSES };
const parts = (track: Track) => partsOf(track, heard, PAPER);

describe('the remarks that a take would make', () => {
  it('begin in the pause before each new passage, and fill the whole take', () => {
    const made = parts([select(0.5, passage(0, 30)), select(4.6, passage(201, 220)), select(9.8, passage(400, 420))]);
    expect(made.map(({ start, end }) => [start, end])).toEqual([
      [0, 4.5],
      [4.5, 9.5],
      [9.5, 20],
    ]);
    expect(made.map(({ anchor }) => anchor.type === 'passage' && anchor.start)).toEqual([0, 201, 400]);
  });

  it('take what is drawn near a passage with it, and make a passage of what is drawn elsewhere', () => {
    const made = parts([
      select(0.5, passage(0, 30)),
      drawn(2, onWords(40, 50)),
      drawn(4.8, onPicture(1000)),
      drawn(6, onPicture(1400)),
      drawn(9.9, onPicture(8000)),
    ]);
    expect(made.map(({ anchor, strokes }) => [anchor.type, strokes.length])).toEqual([
      ['passage', 1],
      ['region', 2],
      ['region', 1],
    ]);
    const [, region] = made;
    expect(region!.anchor).toMatchObject({ leaf: 1 });
    // Both strokes: from 0.1 to 0.16 of the width, and half the pen beyond.
    expect(region!.anchor.type === 'region' && [region!.anchor.x, region!.anchor.width]).toEqual([
      expect.closeTo(0.099, 3),
      expect.closeTo(0.062, 3),
    ]);
  });

  it('are not more because a choice was corrected at once, or made again, or a stroke rubbed out', () => {
    const made = parts([
      select(0.5, passage(0, 10)),
      select(0.9, passage(0, 30)),
      select(7, passage(0, 30)),
      drawn(8, onPicture(100)),
      { type: 'erase', at: 9, stroke: 0 },
    ]);
    expect(made).toHaveLength(1);
    expect(made[0]!.anchor).toMatchObject({ start: 0, end: 30 });
    expect(parts([{ type: 'view', at: 1, leaf: 0, share: 0.3 }])).toEqual([]);
  });

  it('have the kind whose key was pressed while they were in hand', () => {
    const made = parts([
      { type: 'kind', at: 0, kind: 'strength' },
      select(0.5, passage(0, 30)),
      select(4.6, passage(201, 220)),
      { type: 'kind', at: 6, kind: 'repair' },
      // In the pause that belongs to the next, before it is chosen.
      { type: 'kind', at: 9.7, kind: 'question' },
      select(9.8, passage(400, 420)),
    ]);
    expect(made.map(({ kind }) => kind)).toEqual(['strength', 'repair', 'question']);
    // Chosen while the last words about the one before are still being said.
    const soon = parts([
      { type: 'kind', at: 0, kind: 'strength' },
      select(0.5, passage(0, 30)),
      select(3.8, passage(201, 220)),
      { type: 'kind', at: 3.9, kind: 'repair' },
    ]);
    expect(soon.map(({ start, kind }) => [start, kind])).toEqual([
      [0, 'strength'],
      [4.5, 'repair'],
    ]);
  });
});

describe('mending the parts', () => {
  const three = parts([select(0.5, passage(0, 30)), select(4.6, passage(201, 220)), select(9.8, passage(400, 420))]);
  const edges = (made: typeof three) => [made[0]!.start, ...made.map(({ end }) => end)];

  it('moves a boundary, never beyond the parts at its sides, and doubts it no more', () => {
    const moved = moveStart(three, 1, 9);
    expect(edges(moved)).toEqual([0, 9, 9.5, 20]);
    expect(moved[1]!.doubt).toBe(0);
    expect(edges(moveStart(three, 1, 99))).toEqual([0, 9.5, 9.5, 20]);
    expect(edges(moveStart(three, 0, 3))).toEqual([0, 4.5, 9.5, 20]);
  });

  it('finds the pause before and after, and the nearest', () => {
    expect(nextPause(three, 2, PAUSES, 1)).toBeCloseTo(14.2);
    expect(nextPause(three, 2, PAUSES, -1)).toBeUndefined();
    expect(nextPause(moveStart(three, 2, 12), 2, PAUSES, -1)).toBe(9.5);
    expect(nextPause(three, 0, PAUSES, 1)).toBeUndefined();
    expect([nearestPause(PAUSES, 8.6), nearestPause(PAUSES, 8), nearestPause(PAUSES, 8, 2)]).toEqual([9.5, 8, 9.5]);
  });

  it('joins two, and makes two of one, without a gap', () => {
    const joined = mergeWithNext(three, 0);
    expect(edges(joined)).toEqual([0, 9.5, 20]);
    expect(joined[0]!.anchor).toEqual(three[0]!.anchor);
    expect(edges(splitAt(joined, 0, 4.5))).toEqual([0, 4.5, 9.5, 20]);
    expect(mergeWithNext(three, 2)).toEqual(three);
    expect(splitAt(three, 0, 19)).toEqual(three);
  });
});
