/** Where the passage of each entry is drawn, and the line that leads to it; both in CSS pixels. */
export type Places = Record<string, { top: number; line: number | undefined }>;

/** Where a hairline meets what it leads to, below its top. */
export const KNOT = 20;

export const samePlaces = (a: Places, b: Places): boolean =>
  Object.keys(a).length === Object.keys(b).length &&
  Object.keys(b).every((id) => a[id]?.top === b[id]!.top && a[id].line === b[id]!.line);

/** Where the drawing of each remark begins, from `top`. A tall one, e.g. a box, is met near its upper edge. */
export function placesIn(folio: Element, top: number): Places {
  const places: Places = {};
  for (const element of folio.querySelectorAll<HTMLElement>('[data-remarks]')) {
    const ids = element.dataset.remarks!.split(' ').filter((id) => !(id in places));
    const first = ids.length > 0 ? element.getClientRects()[0] : undefined;
    if (!first) continue;
    const line = Math.min((first.top + first.bottom) / 2, first.top + KNOT) - top;
    for (const id of ids) places[id] = { top: first.top - top, line };
  }
  return places;
}
