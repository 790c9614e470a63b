// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Tap } from './tap.ts';

const RATE = 100;
let worklet: { port: { onmessage?: (event: { data: unknown }) => void; postMessage: (message: string) => void } };
/** Seconds of the context's clock. */
let clock = 0;
const hear = (...samples: number[]) => {
  clock += samples.length / RATE;
  worklet.port.onmessage!({ data: { samples: Float32Array.from(samples), until: clock } });
};
const many = (length: number, value: number) => new Array<number>(length).fill(value);

beforeEach(() => {
  vi.stubGlobal(
    'AudioWorkletNode',
    class {
      port = {
        // The audio thread sends what it still has, then says that this was all.
        postMessage: () => {
          hear(9);
          this.port.onmessage({ data: 'flushed' });
        },
        onmessage: (_event: { data: unknown }): void => undefined,
      };
      constructor() {
        worklet = this as unknown as typeof worklet;
      }
    },
  );
});
afterEach(() => vi.unstubAllGlobals());

const open = () =>
  Tap.open({ sampleRate: RATE, audioWorklet: { addModule: () => Promise.resolve() } } as unknown as AudioContext, 0.3);

describe('the tap', () => {
  it('begins with the moment before, and ends with the last sample', async () => {
    const tap = await open();
    for (let i = 0; i < 10; i++) hear(...many(10, i));
    tap.begin();
    hear(...many(10, 50));
    const { samples } = await tap.end();
    expect([...samples!]).toEqual([...many(10, 7), ...many(10, 8), ...many(10, 9), ...many(10, 50), 9]);
  });

  it('leaves a pause out, but not the syllable that ends it', async () => {
    const tap = await open();
    tap.begin();
    hear(...many(10, 1));
    tap.pause();
    for (let i = 0; i < 10; i++) hear(...many(10, 20 + i));
    tap.resume();
    hear(...many(10, 2));
    const { samples } = await tap.end();
    expect([...samples!]).toEqual([
      ...many(10, 1),
      ...many(10, 27),
      ...many(10, 28),
      ...many(10, 29),
      ...many(10, 2),
      9,
    ]);
  });

  it('tells which moment of what it collects comes when, over a pause as well', async () => {
    const tap = await open();
    for (let i = 0; i < 10; i++) hear(...many(10, i));
    tap.begin();
    hear(...many(10, 50));
    expect(tap.momentOf(clock)).toBeCloseTo(0.4);
    expect(tap.momentOf(clock + 0.05)).toBeCloseTo(0.45);
    tap.pause();
    for (let i = 0; i < 10; i++) hear(...many(10, 20 + i));
    expect(tap.momentOf(clock)).toBeCloseTo(0.4);
    tap.resume();
    expect(tap.momentOf(clock + 0.02)).toBeCloseTo(0.72);
  });

  it('starts anew each time', async () => {
    const tap = await open();
    tap.begin();
    hear(1, 2, 3);
    await tap.end();
    tap.begin();
    hear(4);
    expect([...(await tap.end()).samples!]).toEqual([4, 9]);
  });

  it('gives up the samples of half an hour, and keeps how it looks', async () => {
    const tap = await open();
    tap.begin();
    for (let second = 0; second < 1800; second++) hear(...many(RATE, second === 900 ? -0.8 : 0.1));
    const { samples, tops } = await tap.end();
    expect(samples).toBeUndefined();
    expect(tops).toHaveLength(1801);
    expect(tops[900]).toBeCloseTo(0.8);
  });
});
