import MarkdownIt from 'markdown-it';
import { decodeText, guessedIn } from './decode-text.ts';
import { documentErrors, type Reader } from './document.ts';
import { readingOfHtml } from './html.ts';

/** CommonMark with tables and strikethrough; HTML inside of it stays text. */
const markdown = new MarkdownIt({ html: false, linkify: false, typographer: false });

export const readMarkdown: Reader = (bytes, _name, { encoding }) => {
  const decoded = decodeText(bytes, encoding);
  if (!decoded) throw documentErrors.broken('markdown');
  const { text } = decoded;
  return { ...readingOfHtml(markdown.render(text)), guessed: guessedIn(decoded) };
};
