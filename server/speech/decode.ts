import { readWav, resampled, type SampledSound } from '#core/audio';
import { spawn } from 'node:child_process';
import { BufferSource, EncodedPacketSink, Input, MP4, OGG, WEBM, type InputAudioTrack } from 'mediabunny';
import { OpusDecoder } from 'opus-decoder';
import { installed } from './installed.ts';
import { SPEECH_RATE } from './speech-rate.ts';
import { speechErrors } from './speech-error.ts';

/** In hertz; telephones have 8000. */
const LOWEST_RATE = 4000;
const MOST_SECONDS = 3 * 60 * 60;

const isWav = (bytes: Uint8Array): boolean => Buffer.from(bytes.subarray(0, 4)).toString('latin1') === 'RIFF';

/**
 * The samples of a recording, one channel at `SPEECH_RATE`. WAV and Opus in WebM, Ogg and MP4 are decoded here; other codecs by
 * ffmpeg, where it is installed.
 * @throws SpeechError
 */
export async function decodeSpeech(bytes: Uint8Array): Promise<Float32Array> {
  if (isWav(bytes)) return mono(await fromWav(bytes));
  const track = await audioTrack(bytes);
  const samples = track?.codec === 'opus' ? await fromOpus(track) : await byFfmpeg(bytes, track !== undefined);
  if (samples.length === 0) throw speechErrors.corrupt();
  return samples;
}

async function fromWav(bytes: Uint8Array): Promise<SampledSound> {
  try {
    return Promise.resolve(readWav(bytes));
  } catch {
    throw speechErrors.corrupt();
  }
}

function mono({ channels, rate }: SampledSound): Float32Array {
  const [first] = channels;
  if (!first || first.length === 0) throw speechErrors.corrupt();
  // A few bytes can say that they are many hours.
  if (rate < LOWEST_RATE || first.length / rate > MOST_SECONDS) throw speechErrors.tooLong();
  if (channels.length === 1) return resampled(first, rate, SPEECH_RATE);
  const mixed = first.map((_, index) => channels.reduce((sum, samples) => sum + samples[index]!, 0) / channels.length);
  return resampled(mixed, rate, SPEECH_RATE);
}

async function audioTrack(bytes: Uint8Array): Promise<InputAudioTrack | undefined> {
  try {
    const input = new Input({ source: new BufferSource(bytes), formats: [WEBM, OGG, MP4] });
    return (await input.getPrimaryAudioTrack()) ?? undefined;
  } catch {
    return undefined;
  }
}

/** What comes out of a damaged recording before the damage is kept. */
async function fromOpus(track: InputAudioTrack): Promise<Float32Array> {
  const decoder = new OpusDecoder({ sampleRate: SPEECH_RATE, channels: track.numberOfChannels === 1 ? 1 : 2 });
  await decoder.ready;
  const parts: Float32Array[] = [];
  try {
    for await (const { data } of new EncodedPacketSink(track).packets()) {
      const { channelData, samplesDecoded } = decoder.decodeFrame(data);
      if (samplesDecoded > 0) parts.push(mixed(channelData, samplesDecoded));
    }
  } catch {
    if (parts.length === 0) throw speechErrors.corrupt();
  } finally {
    decoder.free();
  }
  return joined(parts);
}

const mixed = (channels: Float32Array[], length: number): Float32Array =>
  Float32Array.from({ length }, (_, i) => channels.reduce((sum, channel) => sum + channel[i]!, 0) / channels.length);

function joined(parts: readonly Float32Array[]): Float32Array {
  const all = new Float32Array(parts.reduce((sum, { length }) => sum + length, 0));
  let at = 0;
  for (const part of parts) {
    all.set(part, at);
    at += part.length;
  }
  return all;
}

async function byFfmpeg(bytes: Uint8Array, known: boolean): Promise<Float32Array> {
  const ffmpeg = installed('ffmpeg');
  if (!ffmpeg) throw known ? speechErrors.format() : speechErrors.corrupt();
  const args = ['-v', 'error', '-i', 'pipe:0', '-f', 'f32le', '-ac', '1', '-ar', String(SPEECH_RATE), 'pipe:1'];
  const child = spawn(ffmpeg, args, { stdio: ['pipe', 'pipe', 'ignore'], timeout: 120_000 });
  const chunks: Buffer[] = [];
  child.stdout.on('data', (chunk: Buffer) => chunks.push(chunk));
  child.stdin.on('error', () => undefined);
  child.stdin.end(bytes);
  const code = await new Promise<number | null>((done) => {
    child.on('close', done);
    child.on('error', () => done(null));
  });
  const all = Buffer.concat(chunks);
  if (code !== 0 && all.length === 0) throw speechErrors.corrupt();
  return new Float32Array(all.buffer.slice(all.byteOffset, all.byteOffset + all.length - (all.length % 4)));
}
