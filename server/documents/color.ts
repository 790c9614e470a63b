/** `#rrggbb` from three parts between 0 and 255. */
export const hexColor = (parts: readonly number[]): string =>
  `#${parts
    .map((part) =>
      Math.round(Math.min(255, Math.max(0, part)))
        .toString(16)
        .padStart(2, '0'),
    )
    .join('')}`;

export const partsOf = (color: string): [number, number, number] =>
  [1, 3, 5].map((at) => parseInt(color.slice(at, at + 2), 16)) as [number, number, number];

/** A colour lighter or darker in its own hue: luminance in HSL times `factor` plus `offset`, both as fractions. */
export function withLuminance(color: string, factor: number, offset: number): string {
  const [r, g, b] = partsOf(color).map((part) => part / 255) as [number, number, number];
  const [high, low] = [Math.max(r, g, b), Math.min(r, g, b)];
  const before = (high + low) / 2;
  const chroma = high - low;
  const saturation = chroma === 0 ? 0 : chroma / (1 - Math.abs(2 * before - 1));
  const after = Math.min(1, Math.max(0, before * factor + offset));
  const hue =
    chroma === 0
      ? 0
      : high === r
        ? ((g - b) / chroma + 6) % 6
        : high === g
          ? (b - r) / chroma + 2
          : (r - g) / chroma + 4;
  const spread = (1 - Math.abs(2 * after - 1)) * saturation;
  const middle = spread * (1 - Math.abs((hue % 2) - 1));
  const sector = [
    [spread, middle, 0],
    [middle, spread, 0],
    [0, spread, middle],
    [0, middle, spread],
    [middle, 0, spread],
    [spread, 0, middle],
  ][Math.floor(hue) % 6]!;
  return hexColor(sector.map((part) => (part + after - spread / 2) * 255));
}
