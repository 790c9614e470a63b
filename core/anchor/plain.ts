/**
 * A text as it is compared: white space as single spaces, one kind of quotes and dashes, compatibility characters composed
 * (Unicode NFKC), soft hyphens gone. What differs only in that reads the same.
 */
export const plain = (text: string): string =>
  text
    .normalize('NFKC')
    .replace(/\u00ad/g, '')
    .replace(/[‘’‚‛′`´]/g, "'")
    .replace(/[“”„‟″«»]/g, '"')
    .replace(/[‐‑‒–—―−]+|--+/g, '-')
    .replace(/…/g, '...')
    .replace(/\s+/g, ' ')
    .trim();

/** The same without any white space, for texts whose lines are broken in other places. */
export const dense = (text: string): string => plain(text).replace(/ ?- ?/g, '-').replace(/ /g, '');
