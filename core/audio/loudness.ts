import { kWeighting } from './k-weighting.ts';

/** Sound as samples from −1 to 1, one array for each channel, all of one length. */
export interface SampledSound {
  channels: readonly Float32Array[];
  /** Samples per second. */
  rate: number;
}

export interface Loudness {
  /** LUFS; −Infinity where all is silence. */
  integrated: number;
  /** LU, by EBU Tech 3342. */
  range: number;
  /** The loudest 400 ms, in LUFS. */
  momentaryMax: number;
  /** The loudest 3 s, in LUFS; −Infinity where the sound is shorter. */
  shortTermMax: number;
}

/** Seconds between two blocks: 400 ms blocks that overlap by 75 % (BS.1770-4), and 3 s ones every 100 ms (Tech 3342). */
const HOP_SECONDS = 0.1;
const MOMENTARY_HOPS = 4;
const SHORT_TERM_HOPS = 30;

/** ITU-R BS.1770-4, table 3: left, right, centre, left and right surround. */
const WEIGHTS = [1, 1, 1, 1.41, 1.41];

/** ITU-R BS.1770-4, annex 1: a constant that makes a 997 Hz sine at 0 dBFS in one channel read −3.01 LKFS. */
const OFFSET = -0.691;
const ABSOLUTE_GATE = -70;
const RELATIVE_GATE = -10;
/** EBU Tech 3342, section 3. */
const RANGE_GATE = -20;
const RANGE_LOW = 0.1;
const RANGE_HIGH = 0.95;

/**
 * Loudness by ITU-R BS.1770-4 and EBU R 128. Sound shorter than a block is measured as one short block.
 * @param sound 1 to 5 channels in the order left, right, centre, left surround, right surround
 */
export function loudness({ channels, rate }: SampledSound): Loudness {
  const hops = hopEnergies({ channels, rate });
  const momentary = slidingMeans(hops, Math.min(MOMENTARY_HOPS, hops.length));
  const shortTerm = slidingMeans(hops, SHORT_TERM_HOPS);
  return {
    integrated: gatedLoudness(momentary),
    range: loudnessRange(shortTerm.length > 0 ? shortTerm : momentary),
    momentaryMax: lufs(largest(momentary)),
    shortTermMax: lufs(largest(shortTerm)),
  };
}

const lufs = (energy: number): number => OFFSET + 10 * Math.log10(energy);
const energyOf = (level: number): number => 10 ** ((level - OFFSET) / 10);

/** The weighted mean square of each full 100 ms; of everything where the sound is shorter than that. */
function hopEnergies({ channels, rate }: SampledSound): Float64Array {
  const length = channels[0]?.length ?? 0;
  const hop = Math.min(Math.round(rate * HOP_SECONDS), length);
  const count = hop === 0 ? 0 : Math.floor(length / hop);
  const energies = new Float64Array(count);
  channels.forEach((samples, channel) => addEnergies(energies, samples, hop, rate, WEIGHTS[channel] ?? 1));
  return energies;
}

function addEnergies(energies: Float64Array, samples: Float32Array, hop: number, rate: number, weight: number): void {
  const [{ b0, b1, b2, a1, a2 }, { b1: c1, b2: c2, a1: d1, a2: d2 }] = kWeighting(rate);
  let s1 = 0;
  let s2 = 0;
  let p1 = 0;
  let p2 = 0;
  let position = 0;
  for (let index = 0; index < energies.length; index++) {
    let sum = 0;
    for (const end = position + hop; position < end; position++) {
      const input = samples[position]!;
      const shelved = b0 * input + s1;
      s1 = b1 * input - a1 * shelved + s2;
      s2 = b2 * input - a2 * shelved;
      const passed = shelved + p1;
      p1 = c1 * shelved - d1 * passed + p2;
      p2 = c2 * shelved - d2 * passed;
      sum += passed * passed;
    }
    energies[index]! += (weight * sum) / hop;
  }
}

/** The mean of each run of so many neighbours. */
function slidingMeans(values: Float64Array, width: number): Float64Array {
  if (width === 0 || values.length < width) return new Float64Array(0);
  return Float64Array.from({ length: values.length - width + 1 }, (_, start) => {
    let sum = 0;
    for (let i = start; i < start + width; i++) sum += values[i]!;
    return sum / width;
  });
}

const largest = (values: Float64Array): number => values.reduce((most, value) => Math.max(most, value), 0);

function mean(values: Float64Array): number {
  return values.length === 0 ? 0 : values.reduce((sum, value) => sum + value, 0) / values.length;
}

/** Blocks as loud as −70 LUFS, and of these those within some LU of their mean. */
function gated(blocks: Float64Array, relativeGate: number): Float64Array {
  const audible = blocks.filter((energy) => energy > energyOf(ABSOLUTE_GATE));
  const gate = mean(audible) * 10 ** (relativeGate / 10);
  return audible.filter((energy) => energy > gate);
}

const gatedLoudness = (blocks: Float64Array): number => lufs(mean(gated(blocks, RELATIVE_GATE)));

function loudnessRange(blocks: Float64Array): number {
  const levels = gated(blocks, RANGE_GATE).sort();
  if (levels.length === 0) return 0;
  const at = (share: number): number => lufs(levels[Math.round((levels.length - 1) * share)]!);
  return at(RANGE_HIGH) - at(RANGE_LOW);
}
