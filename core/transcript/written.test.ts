import { describe, expect, it } from 'vitest';
import {
  fillers,
  inSentences,
  isPlausible,
  longPauses,
  pronunciation,
  spelled,
  textOfWords,
  vocabulary,
  wordAt,
  type Word,
} from './index.ts';

/** Words of 0.3 s each; a number is a pause before the next. */
function said(...parts: (string | number)[]): Word[] {
  let at = 0;
  return parts.flatMap((part) => {
    if (typeof part === 'number') {
      at += part;
      return [];
    }
    const word = { word: part, start: at, end: (at += 0.3) };
    return [word];
  });
}

describe('bare words', () => {
  it('are set into sentences by their pauses', () => {
    const words = said('this', 'is', 'good', 0.7, 'i', 'think', "i'd", 'keep', 'it');
    expect(textOfWords(inSentences(words, 'en'))).toBe("This is good. I think I'd keep it.");
    expect(textOfWords(inSentences(said('i', 'cani'), 'it'))).toBe('I cani.');
  });

  it('are left alone where an engine heard punctuation', () => {
    const words = said('No.', 0.9, 'never');
    expect(inSentences(words, 'en')).toEqual(words);
  });
});

describe('spelling', () => {
  const written = vocabulary(
    ['Amaru Quispe', 'Mirza Hadžić'],
    'The birds of Curlew Reach. They eat ragworm near Curlew Reach, naïvely.',
  );

  it('is that of the class and of the work', () => {
    const words = said('amaru', 'hadzic', 'saw', 'curlew', "reach's", 'naively.');
    expect(textOfWords(spelled(words, written))).toBe("Amaru Hadžić saw Curlew Reach's naïvely.");
  });

  it('mends a doubtful word that is one letter off a long one, and no other', () => {
    const words = [
      { ...said('quispa')[0]!, confidence: 0.1 },
      { ...said('quispa')[0]!, confidence: 0.9 },
      { ...said('reash')[0]!, confidence: 0.1 },
      { ...said('beach')[0]!, confidence: 0.1 },
    ];
    expect(textOfWords(spelled(words, written))).toBe('Quispe quispa Reach Reach');
  });

  it('does not take the first word of a sentence for a name', () => {
    expect(written.has('they')).toBe(false);
    expect(written.has('the')).toBe(false);
  });
});

describe('hesitation', () => {
  it('is found by language', () => {
    expect(fillers(said('Um,', 'well', 'uh', 'euh'), 'en-GB')).toEqual([0, 2]);
    expect(fillers(said('euh', 'um'), 'fr')).toEqual([0]);
  });

  it('of long pauses a little is left', () => {
    const [pause, ...others] = longPauses(said('a', 2, 'b', 0.5, 'c'));
    expect(others).toEqual([]);
    expect(pause!.start).toBeCloseTo(0.5);
    expect(pause!.end).toBeCloseTo(2.1);
  });
});

describe('the word of a moment', () => {
  const words = said('a', 0.5, 'b');
  it.each([
    [-1, -1],
    [0, 0],
    [0.5, 0],
    [0.8, 1],
    [9, 1],
  ])('at %s s is %s', (seconds, index) => expect(wordAt(words, seconds)).toBe(index));
});

describe('pronunciation', () => {
  it.each([
    ['Quispe', 'en', 'K W IY S P EH'],
    ['Tchaikov', 'en', 'CH EY K OW V'],
    ['Beaulieu', 'fr', 'bb au ll ii eu'],
    ['Đorđe', 'en', 'D AO R D EH'],
  ] as const)('of %s (%s) is %s', (word, language, phones) => expect(pronunciation(word, language)).toBe(phones));

  it('is none without letters', () => {
    expect(pronunciation('…', 'en')).toBeUndefined();
    expect(pronunciation('日本', 'en')).toBeUndefined();
  });
});

describe('plausible words', () => {
  it.each([
    ['sure', 2.85, false],
    ['sure', 0.4, true],
    ['incomprehensibility', 2, true],
  ])('%s in %s s: %s', (word, end, plausible) => expect(isPlausible({ word, start: 0, end })).toBe(plausible));
});
