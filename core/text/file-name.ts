/**
 * A name that every common file system takes: without separators, wildcards and control characters, not ending in a dot.
 * @param fallback where nothing else is left
 */
export const fileNameOf = (name: string, fallback: string): string =>
  name
    .replace(/[/\\:*?"<>|]|\p{Cc}/gu, ' ')
    .replace(/ +/g, ' ')
    .replace(/[. ]+$/, '')
    .trim()
    .slice(0, 120) || fallback;
