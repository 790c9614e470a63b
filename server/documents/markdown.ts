import MarkdownIt from 'markdown-it';
import { decodeText } from './decode-text.ts';
import { documentErrors, type Reader } from './document.ts';
import { readingOfHtml } from './html.ts';

/** CommonMark with tables and strikethrough; HTML inside of it stays text. */
const markdown = new MarkdownIt({ html: false, linkify: false, typographer: false });

export const readMarkdown: Reader = (bytes) => {
  const text = decodeText(bytes);
  if (text === undefined) throw documentErrors.broken('markdown');
  return readingOfHtml(markdown.render(text));
};
