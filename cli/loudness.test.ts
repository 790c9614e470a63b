import { levelled, loudness, measure, readWav, truePeak } from '#core/audio';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { fileURLToPath } from 'node:url';
import { beforeAll, describe, expect, it } from 'vitest';
import { loudness as loudnessOf } from './loudness.ts';

const RATE = 48_000;
const SENTENCE = fileURLToPath(new URL('../web/recorder/practice/sentence-0.wav', import.meta.url));
const speech = readWav(readFileSync(SENTENCE));

/** A general-purpose library for the same standards, in Rust: https://crates.io/crates/ebur128 as WebAssembly. */
interface Reference {
  ebur128_integrated_mono(rate: number, samples: Float32Array): number;
  ebur128_true_peak_mono(rate: number, samples: Float32Array): number;
}

describe('against ebur128-wasm', () => {
  let reference: Reference;
  beforeAll(async () => {
    const file = (name: string): string => createRequire(import.meta.url).resolve(`ebur128-wasm/${name}`);
    // Node does not import WebAssembly by itself, so the glue gets its memory and functions by hand.
    const source = readFileSync(file('ebur128_wasm_bg.js'), 'utf8').replace(
      /^import \* as wasm .*$/m,
      'let wasm; export const use = (exports) => void (wasm = exports);',
    );
    const glue = (await import(
      /* @vite-ignore */ `data:text/javascript,${encodeURIComponent(source)}`
    )) as Reference & {
      use(exports: WebAssembly.Exports): void;
    };
    const { instance } = await WebAssembly.instantiate(readFileSync(file('ebur128_wasm_bg.wasm')), {
      './ebur128_wasm_bg.js': glue as unknown as WebAssembly.ModuleImports,
    });
    glue.use(instance.exports);
    reference = glue;
  });

  /**
   * Noise that swells and fades, the same each time (a linear congruential generator, Numerical Recipes). It is smoothed: near
   * half the rate, where no speech is, interpolation filters differ by their length.
   */
  function noise(seconds: number, seed: number): Float32Array {
    let state = seed;
    let [near, far] = [0, 0];
    return Float32Array.from({ length: seconds * RATE }, (_, i) => {
      state = (Math.imul(state, 1664525) + 1013904223) >>> 0;
      near += 0.3 * (state / 2 ** 31 - 1 - near);
      far += 0.3 * (near - far);
      return far * 1.5 * Math.abs(Math.sin(i / 30_000 + seed)) ** 3;
    });
  }

  it.each([1, 2, 3, 4])('agrees within 0.1 LU and 0.2 dB on noise %i', (seed) => {
    const samples = noise(12, seed);
    const { integrated } = loudness({ channels: [samples], rate: RATE });
    expect(Math.abs(integrated - reference.ebur128_integrated_mono(RATE, samples))).toBeLessThan(0.1);
    expect(Math.abs(truePeak([samples]) - reference.ebur128_true_peak_mono(RATE, samples))).toBeLessThan(0.2);
  });

  it('agrees on speech, before and after it is levelled', () => {
    const voice = speech.channels[0]!;
    for (const samples of [voice, levelled(voice, speech.rate)]) {
      const told = measure({ channels: [samples], rate: speech.rate });
      expect(Math.abs(told.integrated! - reference.ebur128_integrated_mono(speech.rate, samples))).toBeLessThan(0.1);
      expect(Math.abs(told.truePeak! - reference.ebur128_true_peak_mono(speech.rate, samples))).toBeLessThan(0.2);
    }
  });
});

describe('vivid loudness', () => {
  it('measures a file', async () => {
    expect(await loudnessOf(SENTENCE)).toEqual({ integrated: -21.2, truePeak: -5.2, range: 0.8, duration: 5.2 });
  });
});
