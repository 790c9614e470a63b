import { withoutEnds } from '#core/text';
import { canonicalText, countWords, type Paragraph } from '#core/folio';
import { decodeText, guessedIn } from './decode-text.ts';
import { documentErrors, type Reader } from './document.ts';
import { readingOfNotebook } from './notebook.ts';

/** Reads plain text, and a notebook by its cells: paragraphs are what empty lines separate, and the line ends inside of them stay. */
export const readText: Reader = (bytes, name, { encoding }) => {
  const decoded = decodeText(bytes, encoding);
  if (!decoded) throw documentErrors.broken('text');
  const { text } = decoded;
  if (/\.ipynb$/iu.test(name)) return { ...readingOfNotebook(text), guessed: guessedIn(decoded) };
  const blocks = text
    .split(/\n[ \t]*\n+/)
    .map((paragraph) => withoutEnds(paragraph, /\n/, 'start').trimEnd())
    .filter((paragraph) => paragraph !== '')
    .map((paragraph): Paragraph => ({ type: 'paragraph', runs: [{ text: paragraph, marks: [] }] }));
  if (countWords(canonicalText(blocks)) === 0) throw documentErrors.withoutText();
  return { leaves: [{ kind: 'text', label: 'Text', blocks }], guessed: guessedIn(decoded) };
};
