/**
 * A grammar of the openings of a text: its first words in their order, all of them or fewer, in the JSpeech Grammar Format
 * (W3C Note of 5 June 2000).
 * @param words of the pronouncing dictionary
 * @param least how many there are in any case, from 1 to all
 */
export function openingGrammar(words: readonly string[], least: number): string {
  const always = words.slice(0, least).join(' ');
  const perhaps = words.slice(least);
  const more = (at: number): string => (at < perhaps.length ? ` [<w${at}>]` : '');
  const rules = perhaps.map((word, at) => `<w${at}> = ${word}${more(at + 1)};`);
  return ['#JSGF V1.0 UTF-8;', 'grammar opening;', `public <opening> = ${always}${more(0)};`, ...rules, ''].join('\n');
}
