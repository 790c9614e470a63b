import { withoutEnds } from './ends.ts';
/** A name as somebody sent it, without what cannot be seen and may deceive: control characters, and those that turn the direction. */
export const visibleName = (name: string): string =>
  name.replace(/[\p{Cc}\u202a-\u202e\u2066-\u2069\u200e\u200f]/gu, '').trim();

/**
 * A name that every common file system takes: without separators, wildcards and control characters, not ending in a dot.
 * @param fallback where nothing else is left
 */
export const fileNameOf = (name: string, fallback: string): string =>
  withoutEnds(name.replace(/[/\\:*?"<>|]|\p{Cc}/gu, ' ').replace(/ +/g, ' '), /[. ]/u, 'end')
    .trim()
    .slice(0, 120) || fallback;
