// @vitest-environment happy-dom
import { KEY_COLORS } from '#core/margin';
import { describe, expect, it } from 'vitest';
import { dark, light } from './theme.ts';

/** WCAG 2.2, “relative luminance” and “contrast ratio”. */
function luminance(hex: string): number {
  const [red, green, blue] = [1, 3, 5].map((at) => {
    const part = parseInt(hex.slice(at, at + 2), 16) / 255;
    return part <= 0.04045 ? part / 12.92 : ((part + 0.055) / 1.055) ** 2.4;
  });
  return 0.2126 * red! + 0.7152 * green! + 0.0722 * blue!;
}
function contrast(a: string, b: string): number {
  const [high, low] = [luminance(a), luminance(b)].sort((x, y) => y - x);
  return (high! + 0.05) / (low! + 0.05);
}

describe.each([
  ['light', light.colors],
  ['dark', dark.colors],
] as const)('the %s look', (_, colors) => {
  it.each(KEY_COLORS)('%s can be read on paper', (name) => {
    expect(contrast(colors[name], colors.surface)).toBeGreaterThanOrEqual(4.5);
  });

  it.each(['quiet', 'error', 'on-surface'] as const)('%s can be read on paper and on the ground', (name) => {
    expect(contrast(colors[name], colors.surface)).toBeGreaterThanOrEqual(4.5);
    expect(contrast(colors[name], colors.background)).toBeGreaterThanOrEqual(4.5);
  });
});

it('contrast is 21 to 1 between black and white', () => {
  expect(contrast('#000000', '#ffffff')).toBeCloseTo(21);
});
