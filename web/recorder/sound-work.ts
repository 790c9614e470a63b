import type { SoundEdit, Span } from '#core/audio';
import type { GreetRequest, PausesRequest, RenderAnswer, RenderRequest } from './sound.worker.ts';

export type Rendered = Extract<RenderAnswer, { type: 'done' }>;
/** A greeting and a banked remark in one. */
export type Joined = Extract<RenderAnswer, { type: 'greeted' }>;
/** What will be heard, before it is encoded. */
export type Heard = Extract<RenderAnswer, { type: 'rendered' }>;

export interface Telling {
  onHeard?: (heard: Heard) => void;
  /** From 0 to 1. */
  onProgress?: (share: number) => void;
}

interface Waiting extends Telling {
  done: (made: never) => void;
  failed: (error: Error) => void;
}

/** What edits are made at: what Opus works with inside. */
const EDIT_RATE = 48_000;

let worker: Worker | undefined;
let requests = 0;
const waiting = new Map<number, Waiting>();

/** Whether this browser can make a new recording out of samples. */
export const canRender = (): boolean => typeof AudioEncoder === 'function' && typeof Worker === 'function';

/** The worker, started when it is first asked for. */
export function soundWorker(): Worker {
  if (worker) return worker;
  worker = new Worker(new URL('./sound.worker.ts', import.meta.url), { type: 'module' });
  worker.onmessage = ({ data }: MessageEvent<RenderAnswer>) => {
    const asked = waiting.get(data.id);
    if (data.type === 'progress') return asked?.onProgress?.(data.share);
    if (data.type === 'rendered') return asked?.onHeard?.(data);
    waiting.delete(data.id);
    if (data.type === 'failed') asked?.failed(new Error(data.message));
    else asked?.done(data as never);
  };
  worker.onerror = () => {
    for (const { failed } of waiting.values()) failed(new Error('The sound could not be worked on'));
    waiting.clear();
    worker = undefined;
  };
  return worker;
}

type Request = RenderRequest | GreetRequest | PausesRequest;
type WithoutId<Asked> = Asked extends Request ? Omit<Asked, 'id'> : never;

/** The samples are handed over and cannot be used afterwards. */
function ask<Answer>(request: WithoutId<Request>, samples: Float32Array<ArrayBuffer>[], telling: Telling = {}) {
  return new Promise<Answer>((done, failed) => {
    const id = requests++;
    waiting.set(id, { done, failed, ...telling });
    soundWorker().postMessage(
      { ...request, id },
      samples.map(({ buffer }) => buffer),
    );
  });
}

/**
 * Trims, cuts, levels and encodes. The samples are handed over and cannot be used afterwards.
 * @param edit what of them is heard; a fresh take decides by itself
 * @throws Error where the browser cannot
 */
export const renderSound = (
  samples: Float32Array<ArrayBuffer>,
  rate: number,
  edit?: SoundEdit,
  telling: Telling = {},
): Promise<Rendered> => ask({ type: 'render', samples, rate, edit }, [samples], telling);

/**
 * Joins a greeting with a banked remark. The samples are handed over and cannot be used afterwards.
 * @throws Error where the browser cannot
 */
export const greetSound = (sounds: Omit<GreetRequest, 'id' | 'type'>): Promise<Joined> =>
  ask({ type: 'greet', ...sounds }, [sounds.greeting, sounds.banked]);

/** Where nothing is said, in seconds. The samples are handed over and cannot be used afterwards. */
export const pausesIn = async (samples: Float32Array<ArrayBuffer>, rate: number): Promise<Span[]> =>
  (await ask<Extract<RenderAnswer, { type: 'pauses' }>>({ type: 'pauses', samples, rate }, [samples])).pauses;

let warmed = false;

/** Gets worker and encoder going before the first take: what runs for the first time runs slowly. */
export function warmUp(): void {
  if (warmed || !canRender()) return;
  warmed = true;
  const hum = Float32Array.from({ length: EDIT_RATE * 4 }, (_, i) => 0.4 * Math.sin(i / 20) * Math.sin(i / 9000));
  renderSound(hum, EDIT_RATE).catch(() => undefined);
}

/** The samples of a recording, its channels mixed into one. */
export async function decode(bytes: ArrayBuffer): Promise<{ samples: Float32Array<ArrayBuffer>; rate: number }> {
  const decoded = await new OfflineAudioContext(1, 1, EDIT_RATE).decodeAudioData(bytes);
  const samples = new Float32Array(decoded.length);
  for (let channel = 0; channel < decoded.numberOfChannels; channel++) {
    const data = decoded.getChannelData(channel);
    for (let i = 0; i < samples.length; i++) samples[i]! += data[i]! / decoded.numberOfChannels;
  }
  return { samples, rate: EDIT_RATE };
}
