import type { Anchor } from './anchor.ts';

export interface Suggestion {
  anchor: Anchor;
  /** What the passage should read. */
  suggestion: string | null;
}

/**
 * A text with suggestions taken over. Where two change the same words, the one that begins first is taken.
 * @param text the canonical text of a folio
 */
export function withSuggestions(text: string, suggestions: readonly Suggestion[]): string {
  let result = '';
  let at = 0;
  const passages = suggestions.flatMap(({ anchor, suggestion }) =>
    anchor.type === 'passage' && suggestion !== null ? [{ start: anchor.start, end: anchor.end, suggestion }] : [],
  );
  for (const { start, end, suggestion } of passages.sort((a, b) => a.start - b.start)) {
    if (start < at) continue;
    result += text.slice(at, start) + suggestion;
    at = end;
  }
  return result + text.slice(at);
}
