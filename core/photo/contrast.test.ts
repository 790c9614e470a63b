import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { stretchContrast } from './index.ts';

/** A picture of greys, and what becomes of it. */
function stretched(tones: readonly number[]): { tones: number[]; changed: boolean } {
  const pixels = Uint8ClampedArray.from(tones.flatMap((tone) => [tone, tone, tone, 255]));
  const changed = stretchContrast(pixels);
  return { changed, tones: tones.map((_, index) => pixels[index * 4]!) };
}
const page = (ink: number, paper: number): number[] => [
  ...Array<number>(20).fill(ink),
  ...Array<number>(80).fill(paper),
];

describe('stretchContrast', () => {
  it('makes grey paper white and faint ink black', () => {
    const { tones, changed } = stretched(page(90, 170));
    expect([changed, tones[0], tones.at(-1)]).toEqual([true, 0, 255]);
  });

  it('is not misled by a speck of black or a glare', () => {
    const { tones } = stretched([
      0,
      ...Array<number>(200).fill(100),
      ...Array<number>(700).fill(180),
      ...Array<number>(60).fill(255),
    ]);
    expect([tones[1], tones[300]]).toEqual([0, 255]);
  });

  it('leaves alone what has all tones, and what has only one', () => {
    expect(stretched(page(0, 255)).changed).toBe(false);
    expect(stretched(page(120, 130)).changed).toBe(false);
    expect(stretchContrast(new Uint8ClampedArray())).toBe(false);
  });

  it('keeps the order of tones, the opacity, and greys grey', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 255 }), { minLength: 30, maxLength: 200 }), (tones) => {
        const after = stretched(tones).tones;
        for (let i = 1; i < tones.length; i++)
          expect(Math.sign(after[i]! - after[i - 1]!) * Math.sign(tones[i]! - tones[i - 1]!)).toBeGreaterThanOrEqual(0);
      }),
    );
    const red = Uint8ClampedArray.from(
      [...Array<number[]>(50).fill([120, 60, 60, 9]), ...Array<number[]>(50).fill([180, 180, 180, 255])].flat(),
    );
    stretchContrast(red);
    expect(red[3]).toBe(9);
    expect(red[0]).toBeGreaterThan(red[1]!);
    expect(red[1]).toBe(red[2]);
  });
});
