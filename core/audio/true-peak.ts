/**
 * The interpolation filter of ITU-R BS.1770-4, annex 2, for four times the rate: twelve taps for each of four phases, the
 * last two being the first two backwards. Written down from memory; the test holds it against sines whose peaks are known.
 */
const FIRST = [
  0.001708984375, 0.010986328125, -0.0196533203125, 0.033203125, -0.0594482421875, 0.1373291015625, 0.97216796875,
  -0.102294921875, 0.047607421875, -0.026611328125, 0.014892578125, -0.00830078125,
];
const SECOND = [
  -0.0291748046875, 0.029296875, -0.0517578125, 0.089111328125, -0.16650390625, 0.465087890625, 0.77978515625,
  -0.2003173828125, 0.1015625, -0.0582275390625, 0.0330810546875, -0.0189208984375,
];
const PHASES = [FIRST, SECOND, [...SECOND].reverse(), [...FIRST].reverse()].map((taps) => Float64Array.from(taps));
const TAPS = FIRST.length;
/** The interpolated values of a phase lie beside this tap. */
export const TRUE_PEAK_DELAY = TAPS / 2;

/** No interpolated value is larger than the largest sample around it times this. */
const MOST_GAIN = Math.max(...PHASES.map((taps) => taps.reduce((sum, tap) => sum + Math.abs(tap), 0)));

/**
 * The largest magnitude between the samples, by interpolation at four times the rate.
 * @param from first sample, at least 0
 * @param to behind the last sample
 */
export function interpolatedPeak(samples: Float32Array, from: number, to: number): number {
  let largest = 0;
  for (const taps of PHASES)
    for (let i = from; i < to; i++) {
      let sum = 0;
      for (let tap = Math.max(0, i - samples.length + 1), most = Math.min(TAPS, i + 1); tap < most; tap++)
        sum += taps[tap]! * samples[i - tap]!;
      largest = Math.max(largest, Math.abs(sum));
    }
  return largest;
}

const BLOCK = 64;

/**
 * True peak level by ITU-R BS.1770-4, annex 2. Stretches that are too quiet to hold the peak are not interpolated.
 * @param channels samples, −1 to 1
 * @returns dBTP; −Infinity where all is silence
 */
export function truePeak(channels: readonly Float32Array[]): number {
  let largest = 0;
  for (const samples of channels) {
    const tops = new Float32Array(Math.ceil(samples.length / BLOCK));
    for (let block = 0; block < tops.length; block++)
      tops[block] = largestIn(samples, block * BLOCK, Math.min((block + 1) * BLOCK, samples.length));
    largest = Math.max(largest, largestIn(tops, 0, tops.length));
    tops.forEach((top, block) => {
      const around = Math.max(top, tops[block - 1] ?? 0);
      if (around * MOST_GAIN <= largest) return;
      largest = Math.max(largest, interpolatedPeak(samples, block * BLOCK, (block + 1) * BLOCK));
    });
  }
  return 20 * Math.log10(largest);
}

export function largestIn(samples: Float32Array, from: number, to: number): number {
  let largest = 0;
  for (let i = from; i < to; i++) {
    const magnitude = Math.abs(samples[i]!);
    if (magnitude > largest) largest = magnitude;
  }
  return largest;
}
