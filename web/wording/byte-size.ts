/** `3 kB`, `1.4 MB`: as people read the size of a file. */
export function byteSize(bytes: number): string {
  if (bytes < 1000) return `${bytes} B`;
  const [size, unit] = bytes < 1_000_000 ? [bytes / 1000, 'kB'] : [bytes / 1_000_000, 'MB'];
  return `${size < 10 ? Math.round(size * 10) / 10 : Math.round(size)} ${unit}`;
}
