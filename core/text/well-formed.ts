/** What no text can be kept with: U+0000, which PostgreSQL refuses, and halves of surrogate pairs, which are no characters. */
const UNKEEPABLE = /[\0\p{Cs}]/gu;
const REPLACEMENT = '\uFFFD';

/** The text with U+FFFD in place of what is no character. No offset moves: each of them is one UTF-16 unit, as before. */
export const wellFormed = (text: string): string => text.replace(UNKEEPABLE, REPLACEMENT);

/** The same for every text in a value as JSON has them, names of properties included. */
export function wellFormedIn<T>(value: T): T;
export function wellFormedIn(value: unknown): unknown {
  if (typeof value === 'string') return wellFormed(value);
  if (Array.isArray(value)) return value.map(wellFormedIn);
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([name, own]) => [wellFormed(name), wellFormedIn(own)]));
}
