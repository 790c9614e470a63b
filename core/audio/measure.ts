import { loudness, type SampledSound } from './loudness.ts';
import { truePeak } from './true-peak.ts';

/** How loud a recording is, as it is told to people. */
export interface Measure {
  /** LUFS; null where all is silence. */
  integrated: number | null;
  /** dBTP; null where all is silence. */
  truePeak: number | null;
  /** LU. */
  range: number;
  /** Seconds. */
  duration: number;
}

const tenths = (value: number): number | null => (Number.isFinite(value) ? Math.round(value * 10) / 10 : null);

/** Loudness by EBU R 128, to a tenth: that is how exact a meter is. */
export function measure(sound: SampledSound): Measure {
  const { integrated, range } = loudness(sound);
  return {
    integrated: tenths(integrated),
    truePeak: tenths(truePeak(sound.channels)),
    range: tenths(range)!,
    duration: Math.round(((sound.channels[0]?.length ?? 0) / sound.rate) * 1000) / 1000,
  };
}
