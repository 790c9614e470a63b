import type { PlaceOnPage } from '../marked/index.ts';
/** How a page of a PDF is shown: ISO 32000-2, table 31. */
export interface PageFrame {
  /** The crop box in user space: left, bottom, right, top. */
  box: readonly [number, number, number, number];
  /** Degrees clockwise. */
  rotate: number;
  /** Points in a unit of user space. */
  userUnit: number;
}

/**
 * From a page as it is shown, in points from its upper left corner, to the user space that annotations are in (ISO 32000-2,
 * section 8.3.2.3).
 */
export function toUserSpace({ box: [left, bottom, right, top], rotate, userUnit }: PageFrame) {
  return ([shownX, shownY]: PlaceOnPage): PlaceOnPage => {
    const [x, y] = [shownX / userUnit, shownY / userUnit];
    switch (((rotate % 360) + 360) % 360) {
      case 90:
        return [left + y, bottom + x];
      case 180:
        return [right - x, bottom + y];
      case 270:
        return [right - y, top - x];
      default:
        return [left + x, top - y];
    }
  };
}
