export interface Sentence {
  /** UTF-16 offsets, `end` exclusive, without the white space around. */
  start: number;
  end: number;
}

/** The sentences of a text by Unicode Standard Annex 29 (https://www.unicode.org/reports/tr29/); a block never runs into the next. */
export function sentences(text: string, language?: string): Sentence[] {
  const segmenter = new Intl.Segmenter(language, { granularity: 'sentence' });
  const found: Sentence[] = [];
  for (const { segment, index } of segmenter.segment(text)) {
    const words = segment.trim();
    const start = index + segment.indexOf(words);
    if (words !== '') found.push({ start, end: start + words.length });
  }
  return found;
}

/** The first sentence that begins after an offset, or the last that ends before it. */
export function sentenceBeside(all: readonly Sentence[], from: Sentence | undefined, by: 1 | -1): Sentence | undefined {
  if (!from) return by === 1 ? all[0] : all.at(-1);
  return by === 1 ? all.find(({ start }) => start >= from.end) : all.findLast(({ end }) => end <= from.start);
}
