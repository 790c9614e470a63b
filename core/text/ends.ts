/**
 * A text without the characters at its beginning, at its end, or at both, that are of one sort. A pattern with `+$` would begin anew at each
 * of them, which takes longer than anybody waits where somebody sends a million.
 * @param sort a pattern of one character
 */
export function withoutEnds(text: string, sort: RegExp, where: 'start' | 'end' | 'both' = 'both'): string {
  let [from, to] = [0, text.length];
  const at = (index: number): string => String.fromCodePoint(text.codePointAt(index)!);
  if (where !== 'end')
    while (from < to) {
      const character = at(from);
      if (!sort.test(character)) break;
      from += character.length;
    }
  if (where !== 'start')
    while (to > from) {
      const isPair = to - from > 1 && /[\uDC00-\uDFFF]/.test(text[to - 1]!) && /[\uD800-\uDBFF]/.test(text[to - 2]!);
      const character = at(isPair ? to - 2 : to - 1);
      if (!sort.test(character)) break;
      to -= character.length;
    }
  return text.slice(from, to);
}
