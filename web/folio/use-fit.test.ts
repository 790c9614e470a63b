// @vitest-environment happy-dom
import { describe, expect, it } from 'vitest';
import { fitLetters } from './use-fit.ts';

/** A box of which the paragraphs are as high as its letters are large. */
function boxOf(height: number, paragraphs: number[], padding = 0): HTMLElement {
  const box = document.createElement('div');
  document.body.append(box);
  box.style.paddingTop = `${padding}px`;
  box.style.paddingBottom = `${padding}px`;
  Object.defineProperty(box, 'clientHeight', { value: height });
  const fit = (): number => Number(box.style.getPropertyValue('--fit'));
  let above = 0;
  for (const size of paragraphs) {
    const paragraph = document.createElement('p');
    const top = above;
    Object.defineProperty(paragraph, 'offsetTop', { get: () => padding + top * fit() });
    Object.defineProperty(paragraph, 'offsetHeight', { get: () => size * fit() });
    above += size;
    box.append(paragraph);
  }
  return box;
}
const fitOf = (box: HTMLElement): number => {
  fitLetters(box);
  return Number(box.style.getPropertyValue('--fit'));
};

describe('fitLetters', () => {
  it('leaves letters that fit as they are, and makes others as small as they must be', () => {
    expect(fitOf(boxOf(100, [40, 60]))).toBe(1);
    const fit = fitOf(boxOf(100, [80, 80]));
    expect(160 * fit).toBeLessThanOrEqual(101);
    expect(160 * (fit + 0.05)).toBeGreaterThan(101);
  });

  it('counts the padding, starts from full size each time, and never makes them too small to read', () => {
    expect(fitOf(boxOf(100, [90], 10))).toBeLessThan(0.91);
    const box = boxOf(100, [80, 80]);
    expect(fitOf(box)).toBe(fitOf(box));
    expect(fitOf(boxOf(10, [500]))).toBeGreaterThanOrEqual(0.3);
    expect(fitOf(boxOf(0, [500]))).toBe(1);
    expect(fitOf(boxOf(100, []))).toBe(1);
  });
});
