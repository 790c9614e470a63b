import { loudness } from '#core/audio';
import { describe, expect, it } from 'vitest';
import { freshEdit, render } from './rendition.ts';

const RATE = 16_000;
const seconds = (length: number, loud: number): number[] =>
  Array.from({ length: length * RATE }, (_, i) => loud * Math.sin(i / 6) * Math.abs(Math.sin(i / 2000)));
const take = Float32Array.from([...seconds(1, 0), ...seconds(2, 0.1), ...seconds(1.5, 0)]);

describe('a fresh take', () => {
  it('loses the silence at its ends and is as loud as all others', () => {
    const edit = freshEdit(take, RATE);
    const [kept] = edit.kept;
    expect(kept!.start).toBeGreaterThan(0.7);
    expect(kept!.start).toBeLessThan(1);
    expect(kept!.end).toBeGreaterThan(3);
    expect(kept!.end).toBeLessThan(3.5);
    const { samples, duration, peaks } = render(take, RATE, edit);
    expect(samples.length / RATE).toBeCloseTo(duration, 3);
    expect(loudness({ channels: [samples], rate: RATE }).integrated).toBeCloseTo(-16, 0);
    expect(peaks).toHaveLength(200);
  });

  it('stays whole where nobody can be heard: a teacher decides, not the machine', () => {
    const silence = new Float32Array(RATE);
    expect(freshEdit(silence, RATE).kept).toEqual([{ start: 0, end: 1 }]);
    expect(render(silence, RATE, freshEdit(silence, RATE)).duration).toBe(1);
  });
});
