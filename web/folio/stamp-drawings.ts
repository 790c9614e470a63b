import type { StampDrawing } from '#contract/stamps';

/** Drawn for this app, on a field of 48 by 48. */
export const DRAWINGS: Record<StampDrawing, { name: string; path: string }> = {
  wave: { name: 'wave', path: 'M4 32c6-2 8-14 17-15 8-1 10 8 4 9-4 .5-5-4-2-5 M4 40c7 0 7-4 13-4s7 4 13 4 7-4 14-4' },
  shell: {
    name: 'shell',
    path: 'M24 42C10 36 6 24 8 14c4-6 10-8 16-8s12 2 16 8c2 10-2 22-16 28Z M24 42V7 M24 42C18 30 15 20 15 10 M24 42c6-12 9-22 9-32 M19 42h10',
  },
  lamp: {
    name: 'lamp of a lighthouse',
    path: 'M18 42l3-24h6l3 24Z M19 18v-7h10v7 M17 11l7-6 7 6 M6 10l8 3 M6 20l8-3 M42 10l-8 3 M42 20l-8-3 M14 42h20',
  },
  eye: {
    name: 'eye',
    path: 'M4 24c6-9 13-13 20-13s14 4 20 13c-6 9-13 13-20 13S10 33 4 24Z M24 17a7 7 0 1 0 .1 0 M24 22a2 2 0 1 0 .1 0',
  },
  sprout: {
    name: 'sprout',
    path: 'M24 43V22 M24 26C12 26 8 18 8 9c10 0 16 6 16 17Z M24 22c0-8 5-13 16-13 0 9-6 15-16 15 M14 43h20',
  },
  knot: {
    name: 'knot',
    path: 'M6 18c14-6 22 18 36 12 M42 18c-14-6-22 18-36 12 M18 24a6 6 0 0 0 12 0 6 6 0 0 0-12 0',
  },
  spark: { name: 'spark', path: 'M24 5l4 14 15 5-15 5-4 14-4-14-15-5 15-5Z' },
  compass: {
    name: 'compass',
    path: 'M24 6a18 18 0 1 0 .1 0 M24 13l5 11-5 11-5-11Z M24 6v3 M24 39v3 M6 24h3 M39 24h3',
  },
};
