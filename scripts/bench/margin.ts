import { layoutRibbons } from '#core/margin';
import { medianTimes } from './figure.ts';

/** 200 ribbons of many heights, many of them about the same few lines. */
export function benchMargin(): object {
  const ribbons = Array.from({ length: 200 }, (_, index) => ({
    passage: Math.floor(index / 4) * 90 + (index % 4) * 7,
    height: 80 + ((index * 37) % 160),
  }));
  const [milliseconds] = medianTimes(200, () => void layoutRibbons(ribbons, { gap: 10, focused: 100 }));
  return {
    layout: { ribbons: ribbons.length, milliseconds: Math.round(milliseconds * 1000) / 1000, wanted: '2 ms or less' },
  };
}
