import tapUrl from './tap.worklet.ts?worker&url';

/** Listens to sound as samples: the last moments all the time, everything between `begin` and `end`. */
export class Tap {
  readonly input: AudioNode;
  readonly rate: number;
  readonly #port: MessagePort;
  readonly #leadSamples: number;
  /** What was heard while nobody collected, as much as belongs to the next beginning. */
  #lead: Float32Array[] = [];
  #pieces: Float32Array[] = [];
  #collecting = false;
  #flushed: (() => void) | undefined;

  private constructor(node: AudioWorkletNode, rate: number, leadSeconds: number) {
    this.input = node;
    this.rate = rate;
    this.#leadSamples = leadSeconds * rate;
    this.#port = node.port;
    this.#port.onmessage = ({ data }: MessageEvent<Float32Array | 'flushed'>) => {
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

  #take(piece: Float32Array): void {
    if (this.#collecting) return void this.#pieces.push(piece);
    this.#lead.push(piece);
    let kept = this.#lead.reduce((sum, { length }) => sum + length, 0);
    while (this.#lead.length > 0 && kept - this.#lead[0]!.length >= this.#leadSamples)
      kept -= this.#lead.shift()!.length;
  }

  begin(): void {
    this.#pieces = [];
    this.resume();
  }

  pause(): void {
    this.#collecting = false;
  }

  /** Goes on with the moment before, so that no syllable is lost. */
  resume(): void {
    this.#pieces.push(...this.#lead);
    this.#lead = [];
    this.#collecting = true;
  }

  /** All samples since `begin`, the last one included. */
  async end(): Promise<Float32Array<ArrayBuffer>> {
    await new Promise<void>((resolve) => {
      this.#flushed = resolve;
      this.#port.postMessage('flush');
    });
    const pieces = this.#pieces;
    this.#pieces = [];
    this.#collecting = false;
    const samples = new Float32Array(pieces.reduce((sum, { length }) => sum + length, 0));
    let at = 0;
    for (const piece of pieces) {
      samples.set(piece, at);
      at += piece.length;
    }
    return samples;
  }
}
