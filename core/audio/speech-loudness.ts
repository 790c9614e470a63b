import { loudness } from './loudness.ts';
import { speechSpans } from './speech-spans.ts';

/**
 * How loud somebody speaks, in LUFS by ITU-R BS.1770-4, without the pauses: in a short recording most blocks of a measurement are
 * partly silence, so that a shout of 0.4 s would count as much quieter than it is.
 * @param samples one channel, −1 to 1
 * @returns −Infinity where all is silence
 */
export const speechLoudness = (samples: Float32Array, rate: number): number =>
  loudness({ channels: [speechOf(samples, rate)], rate }).integrated;

function speechOf(samples: Float32Array, rate: number): Float32Array {
  const pieces = speechSpans(samples, rate).map(({ start, end }) =>
    samples.subarray(Math.round(start * rate), Math.round(end * rate)),
  );
  const speech = new Float32Array(pieces.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const piece of pieces) {
    speech.set(piece, at);
    at += piece.length;
  }
  return speech.length > 0 ? speech : samples;
}
