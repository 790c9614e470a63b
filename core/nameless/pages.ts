/*
 * Pages and texts that name their author beside what they say: HTML, the parts of an e-book, and the front matter of Markdown.
 */

/** https://html.spec.whatwg.org/multipage/semantics.html#standard-metadata-names, and the Dublin Core and sharing names beside it. */
const AUTHORED =
  /\b(?:name|property)\s*=\s*["']?(?:[\w.:-]*(?:author|creator|publisher|contributor|rights)|dc\.|dcterms\.)/iu;

/** A page without what its head says of its author, and without the comments of the program that made it. */
export const withoutPageNames = (html: string): string =>
  html.replace(/<!--[^]*?-->|<meta\b[^<>]*>/giu, (part) =>
    part.startsWith('<!--') || AUTHORED.test(part) ? '' : part,
  );

/** EPUB 3.3, section 5.5: a book needs an identifier, a title, a language and a date. */
export function withoutBookNames(name: string, text: string): string {
  if (name.endsWith('.ncx')) return text.replace(/(<docAuthor\b[^<>]*>)[^]*?(<\/docAuthor>)/giu, '$1<text/>$2');
  if (!name.endsWith('.opf')) return withoutPageNames(text);
  const id = /\bunique-identifier\s*=\s*["']([\w.-]+)["']/u.exec(text)?.[1] ?? 'id';
  const language = /<dc:language\b[^<>]*>\s*([\w-]+)/u.exec(text)?.[1] ?? 'und';
  const open = text.search(/<(?:\w+:)?metadata\b/u);
  const close = /<\/(?:\w+:)?metadata\s*>/u.exec(text);
  if (open < 0 || !close || close.index < open) return text;
  return `${text.slice(0, open)}<metadata xmlns="http://www.idpf.org/2007/opf" xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:identifier id="${id}">urn:uuid:00000000-0000-4000-8000-000000000000</dc:identifier><dc:title>Work</dc:title><dc:language>${language}</dc:language><meta property="dcterms:modified">2000-01-01T00:00:00Z</meta></metadata>${text.slice(close.index + close[0].length)}`;
}

/** Keys of front matter, each with the lines that are indented below it. */
const KEYS = /^(?:authors?|by|creator|email|affiliation|student|name|institute)[ \t]*:[^\n]*\n(?:[ \t-][^\n]*\n)*/gimu;

/** A Markdown text whose front matter names nobody. */
export function withoutFrontMatterNames(markdown: string): string {
  const end = /^---[ \t]*\r?\n/u.test(markdown) ? markdown.indexOf('\n---', 3) : -1;
  return end < 0 ? markdown : markdown.slice(0, end + 1).replace(KEYS, '') + markdown.slice(end + 1);
}
