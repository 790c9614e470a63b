/** Seconds that sound waits before it is encoded, so that a word begun before the key was down is there in full. */
export const LEAD_SECONDS = 0.3;

const CHUNK_MILLISECONDS = 1000;
const BITS_PER_SECOND = 32_000;
const MEDIA_TYPES = ['audio/webm;codecs=opus', 'audio/mp4;codecs=opus', 'audio/mp4'];

const mediaType = (): string => MEDIA_TYPES.find((type) => MediaRecorder.isTypeSupported(type)) ?? '';

/** source → (meter) and → delay line → encoder. The source stays warm between takes. */
export class SoundPath {
  readonly context: AudioContext;
  readonly #meter: AnalyserNode;
  readonly #delay: DelayNode;
  readonly #encoderInput: MediaStreamAudioDestinationNode;
  #source: AudioNode | undefined;

  constructor(context: AudioContext) {
    this.context = context;
    this.#meter = new AnalyserNode(context, { fftSize: 2048 });
    this.#delay = new DelayNode(context, { delayTime: LEAD_SECONDS, maxDelayTime: 1 });
    this.#encoderInput = new MediaStreamAudioDestinationNode(context, { channelCount: 1 });
    this.#delay.connect(this.#encoderInput);
  }

  connect(source: AudioNode): void {
    this.#source?.disconnect();
    this.#source = source;
    source.connect(this.#meter);
    source.connect(this.#delay);
  }

  /** The last 2048 samples before the delay, −1 to 1. */
  read(samples: Float32Array<ArrayBuffer>): void {
    this.#meter.getFloatTimeDomainData(samples);
  }

  /** Starts to encode; resolves when the encoder runs. `onChunk` gets a piece every second. */
  async record(onChunk: (chunk: Blob) => void): Promise<Recording> {
    const recorder = new MediaRecorder(this.#encoderInput.stream, {
      mimeType: mediaType(),
      audioBitsPerSecond: BITS_PER_SECOND,
    });
    const recording = new Recording(recorder, onChunk);
    await recording.running;
    return recording;
  }
}

export class Recording {
  readonly running: Promise<void>;
  readonly #recorder: MediaRecorder;
  readonly #chunks: Blob[] = [];

  constructor(recorder: MediaRecorder, onChunk: (chunk: Blob) => void) {
    this.#recorder = recorder;
    recorder.addEventListener('dataavailable', ({ data }) => {
      if (data.size === 0) return;
      this.#chunks.push(data);
      onChunk(data);
    });
    this.running = new Promise((resolve, reject) => {
      recorder.addEventListener('start', () => resolve(), { once: true });
      recorder.addEventListener('error', () => reject(new Error('The encoder failed')), { once: true });
    });
    recorder.start(CHUNK_MILLISECONDS);
  }

  get mediaType(): string {
    return this.#recorder.mimeType;
  }

  /** Lets the delay line run empty, then ends. */
  async stop(): Promise<Blob> {
    await new Promise((resolve) => setTimeout(resolve, LEAD_SECONDS * 1000));
    return this.end();
  }

  /** Ends at once. */
  async end(): Promise<Blob> {
    if (this.#recorder.state !== 'inactive') {
      const stopped = new Promise((resolve) => this.#recorder.addEventListener('stop', resolve, { once: true }));
      this.#recorder.stop();
      await stopped;
    }
    return new Blob(this.#chunks, { type: this.#recorder.mimeType });
  }
}
