import { headOf, LABEL_HEIGHT, outlineOf, type DrawnStroke } from '../ink/index.ts';
import type { AboutMark, Mark, PlaceOnPage } from './mark.ts';

/** A stroke as it lies on a page, in points from its upper left corner. */
export function strokeMark(drawn: DrawnStroke, about: AboutMark): Mark {
  const place = ({ x, y }: { x: number; y: number }): PlaceOnPage => [x, y];
  const { tool, text = '', points, width } = drawn;
  if (tool === 'label') return { ...about, type: 'label', place: place(points[0]!), size: width * LABEL_HEIGHT, text };
  return {
    ...about,
    ...{ type: 'stroke', tool, width, trace: points.map(place) },
    outline: tool === 'pen' || tool === 'highlighter' ? outlineOf(drawn).map(place) : [],
    lines: linesOf(drawn),
  };
}

const ELLIPSE_POINTS = 48;

/** Shapes as the lines they are drawn with. */
function linesOf({ tool, points, width }: DrawnStroke): PlaceOnPage[][] {
  const [from, to] = [points[0]!, points.at(-1)!];
  const line: PlaceOnPage[] = [
    [from.x, from.y],
    [to.x, to.y],
  ];
  if (tool === 'line') return [line];
  if (tool === 'arrow') return [line, headOf(from, to, width).map(({ x, y }): PlaceOnPage => [x, y])];
  if (tool === 'rectangle')
    return [
      [
        [from.x, from.y],
        [to.x, from.y],
        [to.x, to.y],
        [from.x, to.y],
        [from.x, from.y],
      ],
    ];
  if (tool !== 'ellipse') return [];
  const [x, y, rx, ry] = [(from.x + to.x) / 2, (from.y + to.y) / 2, (to.x - from.x) / 2, (to.y - from.y) / 2];
  return [
    Array.from({ length: ELLIPSE_POINTS + 1 }, (_, step): PlaceOnPage => {
      const angle = (step / ELLIPSE_POINTS) * 2 * Math.PI;
      return [x + rx * Math.cos(angle), y + ry * Math.sin(angle)];
    }),
  ];
}
