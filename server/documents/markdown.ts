import katexModule from '@vscode/markdown-it-katex';
import MarkdownIt from 'markdown-it';
import footnote from 'markdown-it-footnote';
import frontMatter from 'markdown-it-front-matter';
import taskLists from 'markdown-it-task-lists';
import { decodeText, guessedIn } from './decode-text.ts';
import { documentErrors, type Reader, type Reading } from './document.ts';
import { readingOfHtml } from './html.ts';

/** A module of the older kind, whose `default` Node keeps apart and other loaders do not. */
const katex = ('default' in katexModule ? katexModule.default : katexModule) as typeof katexModule;

/**
 * CommonMark with tables and strikethrough, footnotes, task lists and formulas. HTML inside of it is read as a web page is, of which only
 * words and structure come through.
 */
const markdown = new MarkdownIt({ html: true, linkify: false, typographer: false });
markdown
  .use(footnote)
  .use(taskLists)
  .use(katex, { output: 'mathml', throwOnError: false, maxExpand: 100, maxSize: 20 });
markdown.use(frontMatter, () => undefined);

/** What people write in Markdown where it has no sign of its own; anything else between angle brackets is writing, e.g. `List<String>`. */
const TAGS = new Set(
  `a abbr b blockquote br caption center cite code dd del details div dl dt em figcaption figure font h1 h2 h3 h4
   h5 h6 hr i img ins kbd li mark ol p pre q s samp small span strike strong sub summary sup table tbody td tfoot
   th thead tr tt u ul var`.split(/\s+/u),
);
const TAG = /<\/?([a-z][a-z0-9-]*)/giu;
const isMarkup = (html: string): boolean =>
  html.startsWith('<!--') || [...html.matchAll(TAG)].every(([, name]) => TAGS.has(name!.toLowerCase()));
const { escapeHtml } = markdown.utils;
markdown.renderer.rules.html_inline = (tokens, at) => kept(tokens[at]!.content);
markdown.renderer.rules.html_block = (tokens, at) => kept(tokens[at]!.content);
/** HTML to render: a task's checkbox becomes a character, markup stays, anything else is escaped. */
const kept = (html: string): string => {
  if (html.startsWith('<input class="task-list-item-checkbox"')) return html.includes('checked') ? '☑' : '☐';
  return isMarkup(html) ? html : escapeHtml(html);
};

// As the call of a note is known from text documents; the ways back from notes to their calls are no writing.
const numberOf = (meta: unknown): number => (meta as { id: number }).id + 1;
markdown.renderer.rules.footnote_ref = (tokens, at) =>
  `<a href="#footnote-${numberOf(tokens[at]!.meta)}">${numberOf(tokens[at]!.meta)}</a>`;
markdown.renderer.rules.footnote_anchor = () => '';
markdown.renderer.rules.footnote_block_open = () => '<section><ol>';
markdown.renderer.rules.footnote_open = () => '<li>';

/** @throws DocumentError where there are no words in it */
export const readingOfMarkdown = (text: string): Reading => readingOfHtml(htmlOfMarkdown(text));

export const htmlOfMarkdown = (text: string): string => markdown.render(text);

export const readMarkdown: Reader = (bytes, _name, { encoding }) => {
  const decoded = decodeText(bytes, encoding);
  if (!decoded) throw documentErrors.broken('markdown');
  return { ...readingOfMarkdown(decoded.text), guessed: guessedIn(decoded) };
};
