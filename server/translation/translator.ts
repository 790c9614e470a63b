/** Something that can put words into another language. It says of itself where the words go. */
export interface Translator {
  name: string;
  textGoesTo: 'this server' | 'another server';
  /** @param source BCP 47 tags, both */
  knows(source: string, target: string): boolean;
  /**
   * Undefined where it does not know these words.
   * @throws TranslationError
   */
  translate(text: string, source: string, target: string): Promise<string | undefined>;
}

/** Why words could not be translated, in a sentence for people. */
export class TranslationError extends Error {
  override name = 'TranslationError';
}

export const primary = (language: string): string => language.toLowerCase().split('-')[0]!;
