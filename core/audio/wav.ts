import type { SampledSound } from './loudness.ts';

/** The bytes are not a WAV file that can be read; the message says why. */
export class WavError extends Error {
  override name = 'WavError';
}

const PCM = 1;
const FLOAT = 3;
const EXTENSIBLE = 0xfffe;

interface Format {
  code: number;
  channels: number;
  rate: number;
  bits: number;
}

/**
 * Reads a RIFF/WAVE file (Microsoft and IBM, “Multimedia Programming Interface and Data Specifications 1.0”, 1991, with
 * WAVE_FORMAT_EXTENSIBLE): PCM of 8, 16, 24 or 32 bits, or floats of 32 or 64. A file that breaks off is read as far as it goes.
 * @throws WavError
 */
export function readWav(bytes: Uint8Array): SampledSound {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const name = (at: number): string => String.fromCharCode(...bytes.subarray(at, at + 4));
  if (bytes.length < 12 || name(0) !== 'RIFF' || name(8) !== 'WAVE') throw new WavError('This is not a WAV file.');
  let format: Format | undefined;
  for (let at = 12; at + 8 <= bytes.length;) {
    const length = view.getUint32(at + 4, true);
    const body = at + 8;
    if (name(at) === 'fmt ' && body + 16 <= bytes.length) format = readFormat(view, body, length);
    if (name(at) === 'data') {
      if (!format) throw new WavError('This WAV file does not say how its samples are written.');
      return { channels: readSamples(view, body, Math.min(length, bytes.length - body), format), rate: format.rate };
    }
    at = body + length + (length % 2);
  }
  throw new WavError('There is no sound in this WAV file.');
}

function readFormat(view: DataView, at: number, length: number): Format {
  const code = view.getUint16(at, true);
  const extended = code === EXTENSIBLE && length >= 40 && at + 26 <= view.byteLength;
  return {
    code: extended ? view.getUint16(at + 24, true) : code,
    channels: view.getUint16(at + 2, true),
    rate: view.getUint32(at + 4, true),
    bits: view.getUint16(at + 14, true),
  };
}

type ReadSample = (view: DataView, at: number) => number;

const READERS: Record<string, ReadSample> = {
  [`${PCM}/8`]: (view, at) => (view.getUint8(at) - 128) / 128,
  [`${PCM}/16`]: (view, at) => view.getInt16(at, true) / 32_768,
  [`${PCM}/24`]: (view, at) => (view.getInt8(at + 2) * 65_536 + view.getUint16(at, true)) / 8_388_608,
  [`${PCM}/32`]: (view, at) => view.getInt32(at, true) / 2_147_483_648,
  [`${FLOAT}/32`]: (view, at) => view.getFloat32(at, true),
  [`${FLOAT}/64`]: (view, at) => view.getFloat64(at, true),
};

function readSamples(
  view: DataView,
  start: number,
  length: number,
  { code, channels, rate, bits }: Format,
): Float32Array[] {
  const read = READERS[`${code}/${bits}`];
  if (!read || channels === 0 || rate === 0)
    throw new WavError(`Samples of format ${code} with ${bits} bits in ${channels} channels cannot be read.`);
  const width = bits / 8;
  const count = Math.floor(length / (width * channels));
  return Array.from({ length: channels }, (_, channel) => {
    const samples = new Float32Array(count);
    for (let i = 0; i < count; i++) samples[i] = read(view, start + (i * channels + channel) * width);
    return samples;
  });
}

/** Writes one channel as PCM of 16 bits; what is beyond full scale is clipped. */
export function writeWav(samples: Float32Array, rate: number): Uint8Array<ArrayBuffer> {
  const bytes = new Uint8Array(44 + samples.length * 2);
  const view = new DataView(bytes.buffer);
  const write = (at: number, text: string): void =>
    bytes.set(
      [...text].map((char) => char.charCodeAt(0)),
      at,
    );
  write(0, 'RIFF');
  view.setUint32(4, bytes.length - 8, true);
  write(8, 'WAVEfmt ');
  view.setUint32(16, 16, true);
  view.setUint16(20, PCM, true);
  view.setUint16(22, 1, true);
  view.setUint32(24, rate, true);
  view.setUint32(28, rate * 2, true);
  view.setUint16(32, 2, true);
  view.setUint16(34, 16, true);
  write(36, 'data');
  view.setUint32(40, samples.length * 2, true);
  const pcm = new Int16Array(samples.length);
  for (let i = 0; i < pcm.length; i++) pcm[i] = Math.round(Math.min(1, Math.max(-1, samples[i]!)) * 32_767);
  // Every machine that runs this writes its integers like a WAV file: the lower byte first.
  bytes.set(new Uint8Array(pcm.buffer), 44);
  return bytes;
}
