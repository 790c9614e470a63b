/// <reference lib="webworker" />
import {
  greeted,
  pausesBetween,
  peaks,
  speechSpans,
  writeWav,
  type Placed,
  type SoundEdit,
  type Span,
} from '#core/audio';
import { AudioSample, AudioSampleSource, BufferTarget, Output, WebMOutputFormat } from 'mediabunny';
import { hexDigest } from '../session/digest.ts';
import { freshEdit, PEAKS, render } from './rendition.ts';

/* Heavy work on sound, away from the page: trimming, levelling, drawing, encoding. */

export interface RenderRequest {
  id: number;
  type: 'render';
  samples: Float32Array<ArrayBuffer>;
  rate: number;
  /** What a fresh take becomes by itself, where there is none. */
  edit: SoundEdit | undefined;
}

/** Joins a greeting with a banked remark, both at one rate. */
export interface GreetRequest {
  id: number;
  type: 'greet';
  greeting: Float32Array<ArrayBuffer>;
  banked: Float32Array<ArrayBuffer>;
  rate: number;
  /** Seconds into the banked remark. */
  gap: number | undefined;
}

/** Finds where nothing is said. */
export interface PausesRequest {
  id: number;
  type: 'pauses';
  samples: Float32Array<ArrayBuffer>;
  rate: number;
}

export type RenderAnswer = { id: number } & (
  | { type: 'rendered'; wav: Blob; duration: number; peaks: number[] }
  | { type: 'progress'; share: number }
  | { type: 'done'; blob: Blob; sha256: string; duration: number; peaks: number[]; edit: SoundEdit }
  | {
      type: 'greeted';
      blob: Blob;
      sha256: string;
      duration: number;
      peaks: number[];
      greeting: Placed;
      banked: Placed[];
    }
  | { type: 'pauses'; pauses: Span[] }
  | { type: 'failed'; message: string }
);

const BITS_PER_SECOND = 40_000;
const PIECE_SECONDS = 2;

const answer = (message: RenderAnswer): void => self.postMessage(message);

const DEEDS = {
  render: respond,
  greet,
  async pauses({ id, samples, rate }: PausesRequest): Promise<void> {
    answer({ id, type: 'pauses', pauses: pausesBetween(speechSpans(samples, rate)) });
  },
};

self.onmessage = ({ data }: MessageEvent<RenderRequest | GreetRequest | PausesRequest>) => {
  const deed = DEEDS[data.type] as (request: typeof data) => Promise<void>;
  void deed(data).catch((error: unknown) =>
    answer({ id: data.id, type: 'failed', message: error instanceof Error ? error.message : String(error) }),
  );
};

async function respond({ id, samples, rate, edit: wanted }: RenderRequest): Promise<void> {
  const { samples: heard, edit, duration, peaks } = render(samples, rate, wanted ?? freshEdit(samples, rate));
  // It can be heard before it is encoded.
  const wav = new Blob([writeWav(heard, rate)], { type: 'audio/wav' });
  answer({ id, type: 'rendered', wav, duration, peaks });
  const bytes = await encode(heard, rate, (share) => answer({ id, type: 'progress', share }));
  const sha256 = await hexDigest(bytes);
  answer({ id, type: 'done', blob: new Blob([bytes], { type: 'audio/webm' }), sha256, duration, peaks, edit });
}

async function greet({ id, greeting, banked, rate, gap }: GreetRequest): Promise<void> {
  const joined = greeted(greeting, banked, rate, gap);
  const samples = joined.samples as Float32Array<ArrayBuffer>;
  const bytes = await encode(samples, rate, () => undefined);
  answer({
    ...{ id, type: 'greeted', greeting: joined.greeting, banked: joined.banked },
    ...{ blob: new Blob([bytes], { type: 'audio/webm' }), sha256: await hexDigest(bytes) },
    ...{ duration: samples.length / rate, peaks: peaks(samples, PEAKS) },
  });
}

/** As WebM with Opus, which browsers encode by themselves (WebCodecs). */
async function encode(
  samples: Float32Array<ArrayBuffer>,
  rate: number,
  onProgress: (share: number) => void,
): Promise<ArrayBuffer> {
  const target = new BufferTarget();
  const output = new Output({ format: new WebMOutputFormat(), target });
  const source = new AudioSampleSource({ codec: 'opus', bitrate: BITS_PER_SECOND });
  output.addAudioTrack(source);
  await output.start();
  const piece = PIECE_SECONDS * rate;
  for (let at = 0; at < samples.length; at += piece) {
    // A view on the samples would not do: of a view the encoder takes the whole buffer, from its beginning.
    const data = samples.slice(at, at + piece);
    const sample = new AudioSample({
      data,
      format: 'f32',
      numberOfChannels: 1,
      sampleRate: rate,
      timestamp: at / rate,
    });
    await source.add(sample);
    sample.close();
    onProgress(at / samples.length);
  }
  await output.finalize();
  return target.buffer!;
}
