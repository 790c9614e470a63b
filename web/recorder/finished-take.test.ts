import { beforeEach, expect, it, vi } from 'vitest';
import type { Spoken } from './finished-take.ts';

const rendered = vi.fn();
const ofBlob = vi.fn();
const canRender = vi.fn(() => true);
vi.mock('./kept-sound.ts', () => ({ renderedTake: rendered, takeOfBlob: ofBlob }));
vi.mock('./sound-work.ts', () => ({ canRender }));
const { finishedTake } = await import('./finished-take.ts');

const file = new Blob(['as the encoder made it']);
const edit = { kept: [{ start: 0, end: 1 }], levelled: true };
const spoken = (more: Partial<Spoken> = {}): Spoken => ({
  tapped: { samples: new Float32Array(48_000), tops: undefined } as unknown as Spoken['tapped'],
  rate: 48_000,
  microphone: { type: 'device' },
  picture: null,
  original: Promise.resolve(file),
  length: 1,
  ...more,
});

beforeEach(() => {
  rendered.mockReset().mockResolvedValue({ sound: 'rendered', edit });
  ofBlob.mockReset().mockResolvedValue({ sound: 'the file', edit: null });
  canRender.mockReturnValue(true);
});

it('a take is rendered from its samples, and its original comes along', async () => {
  const take = await finishedTake(spoken(), {});
  expect(take).toMatchObject({ sound: 'rendered', edit });
  expect(await take!.original).toBe(file);
  expect(ofBlob).not.toHaveBeenCalled();
});

it('with a picture, without samples, or where the browser cannot, it is the encoder’s file', async () => {
  canRender.mockReturnValueOnce(false);
  const tops = new Float32Array(3);
  const long = { samples: undefined, tops } as unknown as Spoken['tapped'];
  for (const one of [spoken(), spoken({ picture: 'camera' }), spoken({ tapped: long }), spoken({ tapped: undefined })])
    expect(await finishedTake(one, {})).toEqual({ sound: 'the file', edit: null, original: undefined });
  expect(rendered).not.toHaveBeenCalled();
  expect(ofBlob.mock.calls.map(([, , , about]) => (about as { tops?: Float32Array }).tops)).toEqual([
    undefined,
    undefined,
    tops,
    undefined,
  ]);
});

it('what cannot be rendered is kept all the same, and silence is no take', async () => {
  rendered.mockRejectedValueOnce(new Error('out of memory'));
  expect(await finishedTake(spoken(), {})).toMatchObject({ sound: 'the file' });
  rendered.mockResolvedValueOnce(undefined);
  ofBlob.mockResolvedValueOnce(undefined);
  expect(await finishedTake(spoken(), {})).toBeUndefined();
});
