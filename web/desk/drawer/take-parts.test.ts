// @vitest-environment happy-dom
import 'fake-indexeddb/auto';
import { passageAnchor } from '#core/anchor';
import { packPoints, type PlacedStroke } from '#core/ink';
import type { Track } from '#contract/talk';
import { mount } from '@vue/test-utils';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import type { Work } from '#contract/submissions';
import { recordingOf, remarkOf } from '../../testing/mount.ts';
import { makeParts } from './make-parts.ts';
import { useParts, type Parts } from './use-parts.ts';

const RATE = 100;
const PAUSES = [
  { start: 4, end: 5 },
  { start: 9, end: 10 },
];
const rendered: number[] = [];
vi.mock('../../recorder/sound-work.ts', () => ({
  decode: () => Promise.resolve({ samples: new Float32Array(15 * RATE), rate: RATE }),
  pausesIn: () => Promise.resolve(PAUSES),
  renderSound: (samples: Float32Array) => {
    rendered.push(samples.length / RATE);
    return Promise.resolve({
      blob: new Blob(['x']),
      sha256: 'a'.repeat(64),
      duration: samples.length / RATE,
      peaks: [1],
    });
  },
}));
vi.mock('../../player/media-url.ts', () => ({ soundBlob: () => Promise.resolve(new Blob(['sound'])) }));

const text = 'The tide comes in twice a day. The mud stays where it is, and the gulls know it.';
const work = { id: 'work', folio: { text, leaves: [] } } as unknown as Work;
const passage = (start: number) => passageAnchor(text, start, start + 8)!;
const held = (start: number): PlacedStroke => ({
  leaf: 0,
  held: {
    ...{ start, end: start + 4 },
    stroke: {
      ...{ tool: 'pen', colour: 'ink', width: 20, hold: { type: 'free', start: 0 } },
      points: packPoints([{ x: 0, y: 0, pressure: 0.5, at: 0 }]),
    },
  },
});
const TALK: Track = [
  { type: 'kind', at: 0, kind: 'strength' },
  { type: 'select', at: 0.5, anchor: passage(0) },
  { type: 'stroke', at: 2, placed: held(4) },
  { type: 'select', at: 4.6, anchor: passage(20) },
  { type: 'kind', at: 6, kind: 'repair' },
];
const words = [
  { word: 'First', start: 1, end: 1.4 },
  { word: 'thing.', start: 1.5, end: 2 },
  { word: 'Second.', start: 6, end: 6.5 },
];
const transcript = {
  ...{ language: 'en', text: 'First thing. Second.', words, source: 'machine' as const, engine: 'an ear' },
  ...{ approximate: false, read: false },
};
const recording = recordingOf({ id: 'voice', transcript });
recording.sound.duration = 15;
const remark = remarkOf({ id: 'talk', kind: 'next', anchor: { type: 'whole' }, talk: TALK, recording });

async function opened(): Promise<Parts> {
  let parts: Parts;
  mount({
    setup() {
      parts = useParts(
        () => remark,
        () => work,
      );
      return () => null;
    },
  });
  await vi.waitFor(() => expect(parts!.parts.value).toBeDefined());
  return parts!;
}
const edges = (parts: Parts) => parts.parts.value!.map(({ start, end }) => [start, end]);

beforeEach(() => void rendered.splice(0));

describe('the parts of a talk-through', () => {
  it('are found from its pauses, and there is nothing to undo yet', async () => {
    const parts = await opened();
    expect(edges(parts)).toEqual([
      [0, 4.5],
      [4.5, 15],
    ]);
    expect([parts.canUndo.value, parts.canRedo.value]).toEqual([false, false]);
  });

  it('are mended step by step, and each step is undone by itself', async () => {
    const parts = await opened();
    parts.step(1, 1);
    expect(edges(parts)[1]![0]).toBe(9.5);
    parts.moveTo(1, 4.8);
    expect(edges(parts)[1]![0]).toBe(4.5);
    parts.throwAway(0, true);
    parts.merge(0);
    expect(parts.parts.value).toHaveLength(1);
    for (let step = 0; step < 4; step++) parts.undo();
    expect([edges(parts), parts.canUndo.value]).toEqual([[[0, 4.5], [4.5, 15]], false]); // prettier-ignore
    parts.redo();
    expect(edges(parts)[1]![0]).toBe(9.5);
  });

  it('get another passage, and are split where it is heard', async () => {
    const parts = await opened();
    parts.about(1, passage(40));
    parts.split(1, 9.2);
    expect(parts.parts.value!.map(({ anchor }) => anchor)).toEqual([passage(0), passage(40), passage(40)]);
  });
});

describe('making remarks of them', () => {
  const actions = { make: vi.fn(() => Promise.resolve()), putAside: vi.fn(() => Promise.resolve()) };
  const made = async (parts: Parts) => {
    actions.make.mockClear();
    actions.putAside.mockClear();
    const request = { work, remark, parts: parts.parts.value!, onProgress: () => undefined };
    const ids = await makeParts(actions as never, request);
    return { ids, calls: actions.make.mock.calls as unknown as [string, MadeRemark][] };
  };
  interface MadeRemark {
    anchor: { type: string };
    kind: string;
    words: { ink: unknown[] | null };
    recording?: { draft: { text: string } | null };
  }

  it('gives each its sound, words, kind and strokes, and puts the whole aside', async () => {
    const { ids, calls } = await made(await opened());
    expect(rendered).toEqual([4.5, 10.5]);
    expect(
      calls.map(([, { kind, words: said, recording: own }]) => [kind, own?.draft?.text, said.ink?.length ?? 0]),
    ).toEqual([
      ['strength', 'First thing.', 1],
      ['repair', 'Second.', 0],
    ]);
    expect(ids).toHaveLength(2);
    expect(actions.putAside).toHaveBeenCalledWith(remark);
  });

  it('leaves out what was thrown away', async () => {
    const parts = await opened();
    parts.throwAway(0, true);
    const { calls } = await made(parts);
    expect(calls.map(([, { recording: own }]) => own?.draft?.text)).toEqual(['Second.']);
  });

  it('loses no stroke where a part is about something else by now', async () => {
    const parts = await opened();
    parts.about(0, { type: 'whole' });
    const { calls } = await made(parts);
    expect(calls.map(([, { anchor, words: said }]) => [anchor.type, said.ink?.length ?? 0])).toEqual([
      ['whole', 0],
      ['passage', 1],
      ['passage', 0],
    ]);
  });
});
