import { Tap } from './tap.ts';

/** Seconds that sound waits before it is encoded, so that a word begun before the key was down is there in full. */
export const LEAD_SECONDS = 0.3;

const CHUNK_MILLISECONDS = 1000;
export const BITS_PER_SECOND = 32_000;
export const VIDEO_BITS_PER_SECOND = 1_200_000;
const SOUND_TYPES = ['audio/webm;codecs=opus', 'audio/mp4;codecs=opus', 'audio/mp4'];
const VIDEO_TYPES = ['video/webm;codecs=vp8,opus', 'video/webm', 'video/mp4'];

const supported = (types: readonly string[]): string => types.find((type) => MediaRecorder.isTypeSupported(type)) ?? '';

/** source → meter, → tap, → delay line → encoder. The source stays warm between takes. */
export class SoundPath {
  readonly context: AudioContext;
  /** Samples as they are spoken; undefined where the browser has no audio worklets. */
  tap: Tap | undefined;
  readonly #meter: AnalyserNode;
  readonly #delay: DelayNode;
  readonly #encoderInput: MediaStreamAudioDestinationNode;
  /** A picture cannot wait, so the sound beside it does not either. */
  readonly #besidePicture: MediaStreamAudioDestinationNode;
  #source: AudioNode | undefined;

  constructor(context: AudioContext) {
    this.context = context;
    this.#meter = new AnalyserNode(context, { fftSize: 2048 });
    this.#delay = new DelayNode(context, { delayTime: LEAD_SECONDS, maxDelayTime: 1 });
    this.#encoderInput = new MediaStreamAudioDestinationNode(context, { channelCount: 1 });
    this.#besidePicture = new MediaStreamAudioDestinationNode(context, { channelCount: 1 });
    this.#delay.connect(this.#encoderInput);
  }

  async connect(source: AudioNode): Promise<void> {
    this.tap ??= await Tap.open(this.context, LEAD_SECONDS).catch(() => undefined);
    this.#source?.disconnect();
    this.#source = source;
    source.connect(this.#meter);
    source.connect(this.#delay);
    source.connect(this.#besidePicture);
    if (this.tap) source.connect(this.tap.input);
  }

  /** The last 2048 samples before the delay, −1 to 1. */
  read(samples: Float32Array<ArrayBuffer>): void {
    this.#meter.getFloatTimeDomainData(samples);
  }

  /** Starts to encode; resolves when the encoder runs. `onChunk` gets a piece every second. */
  async record(onChunk: (chunk: Blob) => void, picture?: MediaStream): Promise<Recording> {
    const sound = picture ? this.#besidePicture.stream : this.#encoderInput.stream;
    const stream = new MediaStream([...(picture?.getVideoTracks() ?? []), ...sound.getAudioTracks()]);
    const recorder = new MediaRecorder(stream, {
      mimeType: supported(picture ? VIDEO_TYPES : SOUND_TYPES),
      audioBitsPerSecond: BITS_PER_SECOND,
      ...(picture && { videoBitsPerSecond: VIDEO_BITS_PER_SECOND }),
    });
    const recording = new Recording(recorder, onChunk, picture ? 0 : LEAD_SECONDS);
    await recording.running;
    return recording;
  }
}

export class Recording {
  readonly running: Promise<void>;
  readonly #recorder: MediaRecorder;
  readonly #chunks: Blob[] = [];
  readonly #lead: number;
  #pausing: ReturnType<typeof setTimeout> | undefined;

  /** @param lead seconds that sound needs through the delay line */
  constructor(recorder: MediaRecorder, onChunk: (chunk: Blob) => void, lead: number) {
    this.#recorder = recorder;
    this.#lead = lead;
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

  /** Pauses when the delay line has run empty. */
  pause(): void {
    this.#pausing = setTimeout(() => {
      if (this.#recorder.state === 'recording') this.#recorder.pause();
    }, this.#lead * 1000);
  }

  resume(): void {
    clearTimeout(this.#pausing);
    if (this.#recorder.state === 'paused') this.#recorder.resume();
  }

  /** Lets the delay line run empty, then ends. */
  async stop(): Promise<Blob> {
    if (this.#recorder.state === 'recording') await new Promise((resolve) => setTimeout(resolve, this.#lead * 1000));
    return this.end();
  }

  /** Ends at once. */
  async end(): Promise<Blob> {
    clearTimeout(this.#pausing);
    if (this.#recorder.state !== 'inactive') {
      const stopped = new Promise((resolve) => this.#recorder.addEventListener('stop', resolve, { once: true }));
      this.#recorder.stop();
      await stopped;
    }
    return new Blob(this.#chunks, { type: this.#recorder.mimeType });
  }
}
