import { packPoints, unpackPoints } from './pack.ts';
import type { DrawnStroke, Stroke } from './stroke.ts';
import { thinPoints } from './thin.ts';

/** Units in the width of a page, slide or picture. */
export const SURFACE_UNITS = 10_000;

/** @param width of the leaf on screen, in pixels */
export function keepOnSurface({ points, width: thick, ...look }: DrawnStroke, width: number): Stroke {
  const unit = width / SURFACE_UNITS;
  const scaled = thinPoints(points).map((point) => ({ ...point, x: point.x / unit, y: point.y / unit }));
  return { ...look, width: Math.max(1, Math.round(thick / unit)), points: packPoints(scaled) };
}

/** Inverse of {@link keepOnSurface}, at any width. */
export function drawOnSurface({ points, width: thick, hold: _hold, ...look }: Stroke, width: number): DrawnStroke {
  const unit = width / SURFACE_UNITS;
  const scaled = unpackPoints(points).map((point) => ({ ...point, x: point.x * unit, y: point.y * unit }));
  return { ...look, width: thick * unit, points: scaled };
}
