import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { heardAt } from '../audio/edit.ts';
import { packPoints, type DrawnStroke, type InkPoint, type PlacedStroke } from '../ink/index.ts';
import { grown, isSeen, lastBefore, timelineOf } from './timeline.ts';
import { inTime, isOf, retimedTrack, type TalkEvent, type Track } from './track.ts';

const point = (x: number, at: number): InkPoint => ({ x, y: 10, pressure: 0.5, at });
const stroke = (seconds: number, x = 100): PlacedStroke => ({
  leaf: 0,
  stroke: { tool: 'pen', colour: 'ink', width: 20, points: packPoints([point(x, 0), point(x + 50, seconds)]) },
});
const whole = { type: 'whole' } as const;
const span = (start: number) => ({ type: 'span', leaf: 0, start, end: start + 1 }) as const;

describe('the order of a track', () => {
  it('is that of time: a stroke is told when it ends, and counts from when it began', () => {
    const track = inTime([
      { type: 'select', at: 3, anchor: whole },
      { type: 'stroke', at: 2, placed: stroke(2) },
      { type: 'kind', at: 2, kind: 'repair' },
    ]);
    expect(track.map(({ type }) => type)).toEqual(['stroke', 'kind', 'select']);
  });

  it('leaves each rubbing out with its stroke, however these change places', () => {
    const [a, b] = [stroke(5, 100), stroke(1, 900)];
    const track = inTime([
      { type: 'stroke', at: 4, placed: b },
      { type: 'stroke', at: 1, placed: a },
      { type: 'erase', at: 6, stroke: 0 },
      { type: 'erase', at: 7, stroke: 9 },
    ]);
    const gone = track.filter(isOf('erase'));
    expect(gone).toHaveLength(1);
    expect(track.filter(isOf('stroke'))[gone[0]!.stroke]!.placed).toBe(b);
  });
});

describe('a track beside another rendition of its sound', () => {
  const kept = [
    { start: 1, end: 4 },
    { start: 6, end: 9 },
  ];

  it('keeps each moment that is still heard with what was said then', () => {
    const moments = fc.array(fc.double({ min: 0, max: 10, noNaN: true }), { maxLength: 20 });
    fc.assert(
      fc.property(moments, (all) => {
        const track: Track = all.toSorted((a, b) => a - b).map((at) => ({ type: 'halt', at }));
        const now = retimedTrack(track, null, kept);
        now.forEach(({ at }, index) => {
          const heard = heardAt(kept, track[index]!.at);
          if (heard !== undefined) expect(at).toBeCloseTo(heard, 2);
          expect(at).toBeGreaterThanOrEqual(now[index - 1]?.at ?? 0);
        });
      }),
    );
  });

  it('loses nothing that happened where the sound is cut out: it happens at the cut', () => {
    const at = (moment: number) => retimedTrack([{ type: 'halt', at: moment }], null, kept)[0]!.at;
    expect([at(0.5), at(5), at(9.9)]).toEqual([0, 3, 6]);
  });

  it('can be cut again, from what was heard before', () => {
    const track: TalkEvent[] = [{ type: 'halt', at: 7.5 }];
    const once = retimedTrack(track, null, kept);
    expect(once[0]!.at).toBeCloseTo(4.5);
    expect(retimedTrack(once, kept, [{ start: 7, end: 9 }])[0]!.at).toBeCloseTo(0.5);
  });
});

describe('a track at a moment', () => {
  const track: Track = [
    { type: 'kind', at: 0, kind: 'strength' },
    { type: 'view', at: 0, leaf: 0, share: 0 },
    { type: 'select', at: 1, anchor: span(1) },
    { type: 'stroke', at: 2, placed: stroke(2) },
    { type: 'kind', at: 3, kind: 'repair' },
    { type: 'perform', at: 4, leaf: 0, from: 10 },
    { type: 'select', at: 5, anchor: span(2) },
    { type: 'halt', at: 6 },
    { type: 'erase', at: 8, stroke: 0 },
    { type: 'view', at: 9, leaf: 1, share: 0.5, offset: 400 },
    { type: 'perform', at: 10, leaf: 0, from: 12 },
  ];
  const { views, passages, strokes, performances } = timelineOf(track);

  it('shows what was in sight last', () => {
    expect([lastBefore(views, 8.9)?.leaf, lastBefore(views, 9)?.leaf, lastBefore(views, 99)?.leaf]).toEqual([0, 1, 1]);
    expect(lastBefore(views.slice(1), 3)).toBeUndefined();
  });

  it('has each stroke from its first point until it is rubbed out', () => {
    expect([1.9, 2, 7.9, 8].map((moment) => isSeen(strokes[0]!, moment))).toEqual([false, true, true, false]);
    expect(strokes[0]!.drawn).toBe(4);
  });

  it('gives a passage the kind that was chosen while it was in hand', () => {
    expect(passages.map(({ kind }) => kind)).toEqual(['repair', 'repair']);
    expect(timelineOf(track.slice(0, 4)).passages[0]!.kind).toBe('strength');
  });

  it('knows when the student was heard, and from where', () => {
    expect(performances).toEqual([
      { leaf: 0, at: 4, until: 6, from: 10 },
      { leaf: 0, at: 10, until: Infinity, from: 12 },
    ]);
  });

  it('draws as much of a stroke as the hand had drawn', () => {
    const points = [point(0, 0), point(10, 1), point(30, 2)];
    const drawn: DrawnStroke = { tool: 'pen', colour: 'ink', width: 2, points };
    expect(grown(drawn, -0.1)).toBeUndefined();
    expect(grown(drawn, 1.5)!.points.map(({ x }) => x)).toEqual([0, 10, 20]);
    expect(grown(drawn, 2)).toBe(drawn);
  });
});
