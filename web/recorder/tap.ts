import tapUrl from './tap.worklet.ts?worker&url';

/** Beyond so much speech its samples would fill the memory of a small computer; the encoder's file goes on. */
const MOST_SECONDS = 720;

/** What was heard between `begin` and `end`. */
export interface Tapped {
  /** Undefined where it was too much to keep. */
  samples: Float32Array<ArrayBuffer> | undefined;
  /** The largest magnitude of each piece, also where the samples were too many. */
  tops: Float32Array;
}

interface Piece {
  samples: Float32Array;
  /** When its last sample was heard, in seconds of the context's clock. */
  until: number;
}

/** Listens to sound as samples: the last moments all the time, everything between `begin` and `end`. */
export class Tap {
  readonly input: AudioNode;
  readonly rate: number;
  readonly #port: MessagePort;
  readonly #leadSamples: number;
  /** What was heard while nobody collected, as much as belongs to the next beginning. */
  #lead: Piece[] = [];
  #pieces: Float32Array[] = [];
  #tops: number[] = [];
  #kept = 0;
  /** Up to when of the context's clock what is kept reaches. */
  #until = 0;
  #collecting = false;
  #flushed: (() => void) | undefined;

  private constructor(node: AudioWorkletNode, rate: number, leadSeconds: number) {
    this.input = node;
    this.rate = rate;
    this.#leadSamples = leadSeconds * rate;
    this.#port = node.port;
    this.#port.onmessage = ({ data }: MessageEvent<Piece | 'flushed'>) => {
      if (data === 'flushed') this.#flushed?.();
      else this.#take(data);
    };
  }

  /** @param leadSeconds how much of the moment before `begin` belongs to what is collected */
  static async open(context: AudioContext, leadSeconds: number): Promise<Tap> {
    await context.audioWorklet.addModule(tapUrl);
    const node = new AudioWorkletNode(context, 'tap', {
      numberOfOutputs: 0,
      channelCount: 1,
      channelCountMode: 'explicit',
    });
    return new Tap(node, context.sampleRate, leadSeconds);
  }

  #take(piece: Piece): void {
    if (this.#collecting) return this.#keep(piece);
    this.#lead.push(piece);
    let kept = this.#lead.reduce((sum, { samples }) => sum + samples.length, 0);
    while (this.#lead.length > 0 && kept - this.#lead[0]!.samples.length >= this.#leadSamples)
      kept -= this.#lead.shift()!.samples.length;
  }

  #keep({ samples, until }: Piece): void {
    this.#tops.push(largest(samples));
    this.#kept += samples.length;
    this.#until = until;
    if (this.#tooMuch) this.#pieces = [];
    else this.#pieces.push(samples);
  }

  get #tooMuch(): boolean {
    return this.#kept > MOST_SECONDS * this.rate;
  }

  begin(): void {
    this.#pieces = [];
    this.#tops = [];
    this.#kept = 0;
    this.resume();
  }

  /** Where in what is collected a moment of the context's clock comes; both in seconds. While it pauses, its end. */
  momentOf(time: number): number {
    return this.#kept / this.rate + (this.#collecting && this.#kept > 0 ? time - this.#until : 0);
  }

  pause(): void {
    this.#collecting = false;
  }

  /** Goes on with the moment before, so that no syllable is lost. */
  resume(): void {
    for (const piece of this.#lead) this.#keep(piece);
    this.#lead = [];
    this.#collecting = true;
  }

  /** All since `begin`, the last sample included. */
  async end(): Promise<Tapped> {
    await new Promise<void>((resolve) => {
      this.#flushed = resolve;
      this.#port.postMessage('flush');
    });
    const pieces = this.#pieces;
    this.#pieces = [];
    this.#collecting = false;
    const tops = Float32Array.from(this.#tops);
    if (this.#tooMuch) return { samples: undefined, tops };
    const samples = new Float32Array(this.#kept);
    let at = 0;
    for (const piece of pieces) {
      samples.set(piece, at);
      at += piece.length;
    }
    return { samples, tops };
  }
}

function largest(samples: Float32Array): number {
  let most = 0;
  for (const sample of samples) most = Math.max(most, Math.abs(sample));
  return most;
}
