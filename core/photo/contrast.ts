/** What lies beyond these shares of all pixels is glare, a shadow or a speck (common practice). */
const DARKEST = 0.01;
const LIGHTEST = 0.9;
/** A page that is all of one tone has nothing to stretch: its grain would become its picture. */
const LEAST_RANGE = 24;

/** The luma of a pixel, 0 to 255: ITU-R BT.601-7, section 2.5.1. */
const luma = (red: number, green: number, blue: number): number =>
  Math.round(0.299 * red + 0.587 * green + 0.114 * blue);

/**
 * Makes the ink of a photographed page dark and its paper light: its tones are spread over the whole range, its hues stay.
 * @param pixels red, green, blue and opacity of each pixel, 0 to 255; changed in place
 * @returns whether anything was changed
 */
export function stretchContrast(pixels: Uint8ClampedArray): boolean {
  const counts = new Uint32Array(256);
  for (let at = 0; at < pixels.length; at += 4) counts[luma(pixels[at]!, pixels[at + 1]!, pixels[at + 2]!)]!++;
  const low = toneBelow(counts, DARKEST);
  const high = toneBelow(counts, LIGHTEST);
  if (high - low < LEAST_RANGE || (low === 0 && high === 255)) return false;
  const stretched = Uint8ClampedArray.from({ length: 256 }, (_, tone) => (255 * (tone - low)) / (high - low));
  for (let at = 0; at < pixels.length; at += 4)
    for (let channel = at; channel < at + 3; channel++) pixels[channel] = stretched[pixels[channel]!]!;
  return true;
}

/** The tone up to which so much of a picture is. */
function toneBelow(counts: Uint32Array, share: number): number {
  const wanted = share * counts.reduce((sum, count) => sum + count, 0);
  let sum = 0;
  const tone = counts.findIndex((count) => (sum += count) > 0 && sum >= wanted);
  return Math.max(0, tone);
}
