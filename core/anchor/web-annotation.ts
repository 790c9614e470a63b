import type { Folio } from '#core/folio';
import { passageAnchor, type Anchor } from './anchor.ts';
import { anchorHolds } from './in-folio.ts';
import { locatePassage } from './locate.ts';

/*
 * Anchors as targets of the W3C Web Annotation Data Model (https://www.w3.org/TR/annotation-model/), whose offsets count code
 * points where ours count UTF-16 units.
 */

export interface AnnotationSelector {
  type: string;
  start?: number | undefined;
  end?: number | undefined;
  exact?: string | undefined;
  prefix?: string | undefined;
  suffix?: string | undefined;
  conformsTo?: string | undefined;
  value?: string | undefined;
}

export interface AnnotationTarget {
  /** The work, or a part of it behind `#`: `leaf-3`, `question-…`. */
  source: string;
  selector?: AnnotationSelector | AnnotationSelector[] | undefined;
}

/** W3C Media Fragments URI 1.0. */
const MEDIA_FRAGMENTS = 'http://www.w3.org/TR/media-frags/';
/** URI Fragment Identifiers for the text/csv Media Type. */
const CSV_FRAGMENTS = 'http://tools.ietf.org/rfc/rfc7111';

/** How many code points stand before a UTF-16 offset. */
export function codePoints(text: string, offset: number): number {
  let count = 0;
  for (let at = 0; at < offset; at += text.codePointAt(at)! > 0xffff ? 2 : 1) count++;
  return count;
}

/** The UTF-16 offset behind so many code points; the end of the text where it has fewer. */
export function utf16Offset(text: string, points: number): number {
  let at = 0;
  for (let count = 0; count < points && at < text.length; count++) at += text.codePointAt(at)! > 0xffff ? 2 : 1;
  return at;
}

/**
 * What an annotation is about.
 * @param work an IRI that names the work
 */
export function annotationTarget(folio: Folio, work: string, anchor: Anchor): AnnotationTarget {
  const fragment = (conformsTo: string, value: string): AnnotationSelector => ({
    type: 'FragmentSelector',
    conformsTo,
    value,
  });
  const onLeaf = (leaf: number, selector: AnnotationSelector): AnnotationTarget => ({
    source: `${work}#leaf-${leaf}`,
    selector,
  });
  switch (anchor.type) {
    case 'whole':
      return { source: work };
    case 'answer':
      return { source: `${work}#question-${anchor.question}` };
    case 'passage': {
      const position = {
        type: 'TextPositionSelector',
        start: codePoints(folio.text, anchor.start),
        end: codePoints(folio.text, anchor.end),
      };
      return { source: work, selector: [position, { type: 'TextQuoteSelector', ...anchor.quote }] };
    }
    case 'region': {
      const percent = [anchor.x, anchor.y, anchor.width, anchor.height].map((share) => trimmed(share * 100));
      return onLeaf(anchor.leaf, fragment(MEDIA_FRAGMENTS, `xywh=percent:${percent.join(',')}`));
    }
    case 'span':
      return onLeaf(anchor.leaf, fragment(MEDIA_FRAGMENTS, `t=${trimmed(anchor.start)},${trimmed(anchor.end)}`));
    case 'cells': {
      const first = `${anchor.top + 1},${anchor.left + 1}`;
      return onLeaf(anchor.leaf, fragment(CSV_FRAGMENTS, `cell=${first}-${anchor.bottom + 1},${anchor.right + 1}`));
    }
  }
}

const trimmed = (value: number): string => String(Math.round(value * 1e6) / 1e6);

/**
 * The anchor that a target means, in a folio in which it holds. Words are looked for where the offsets say, and else by their
 * quote.
 * @returns undefined where the target is none of ours, or is not there
 */
export function anchorOfTarget(folio: Folio, work: string, { source, selector }: AnnotationTarget): Anchor | undefined {
  if (source !== work && !source.startsWith(`${work}#`)) return undefined;
  const part = source.slice(work.length + 1);
  const selectors = selector === undefined ? [] : Array.isArray(selector) ? selector : [selector];
  const found = part === '' ? inText(folio, selectors) : onPart(part, selectors);
  return found && anchorHolds(folio, found) ? found : undefined;
}

function inText(folio: Folio, selectors: readonly AnnotationSelector[]): Anchor | undefined {
  if (selectors.length === 0) return { type: 'whole' };
  const position = selectors.find(({ type }) => type === 'TextPositionSelector');
  const quote = selectors.find(({ type }) => type === 'TextQuoteSelector');
  const place = locatePassage(folio.text, {
    start: position?.start === undefined ? undefined : utf16Offset(folio.text, position.start),
    end: position?.end === undefined ? undefined : utf16Offset(folio.text, position.end),
    exact: quote?.exact,
    prefix: quote?.prefix,
    suffix: quote?.suffix,
  });
  return place && passageAnchor(folio.text, place.start, place.end);
}

const NUMBER = '(\\d+(?:\\.\\d+)?)';
const REGION = new RegExp(`^xywh=percent:${NUMBER},${NUMBER},${NUMBER},${NUMBER}$`);
const SPAN = new RegExp(`^t=(?:npt:)?${NUMBER},${NUMBER}$`);
const CELLS = /^cell=(\d+),(\d+)(?:-(\d+),(\d+))?$/;

function onPart(part: string, selectors: readonly AnnotationSelector[]): Anchor | undefined {
  const question = /^question-(.+)$/.exec(part)?.[1];
  if (question !== undefined) return { type: 'answer', question };
  const leaf = Number(/^leaf-(\d+)$/.exec(part)?.[1] ?? NaN);
  const value = selectors.find(({ type }) => type === 'FragmentSelector')?.value ?? '';
  if (Number.isNaN(leaf)) return undefined;
  const region = REGION.exec(value)
    ?.slice(1)
    .map((share) => Number(share) / 100);
  if (region) {
    const [x, y, width, height] = region as [number, number, number, number];
    return { type: 'region', leaf, x, y, width, height };
  }
  const span = SPAN.exec(value)?.slice(1).map(Number);
  if (span) return { type: 'span', leaf, start: span[0]!, end: span[1]! };
  const [, top, left, bottom = top, right = left] = CELLS.exec(value) ?? [];
  if (top === undefined) return undefined;
  const [first, ...others] = [top, left, bottom, right].map((count) => Number(count) - 1);
  return { type: 'cells', leaf, top: first!, left: others[0]!, bottom: others[1]!, right: others[2]! };
}
