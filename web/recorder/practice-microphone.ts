import sentence0 from './practice/sentence-0.wav?url';
import sentence1 from './practice/sentence-1.wav?url';
import sentence2 from './practice/sentence-2.wav?url';

const SENTENCES = [sentence0, sentence1, sentence2];

/** A stand-in for people without a microphone: speaks one sample sentence for each take, through the same path as a voice. */
export class PracticeMicrophone {
  readonly output: AudioNode;
  readonly #context: AudioContext;
  readonly #sentences: AudioBuffer[];
  #playing: AudioBufferSourceNode | undefined;
  #next = 0;

  private constructor(context: AudioContext, sentences: AudioBuffer[]) {
    this.#context = context;
    this.#sentences = sentences;
    this.output = context.createGain();
  }

  static async open(context: AudioContext): Promise<PracticeMicrophone> {
    const sentences = SENTENCES.map(async (url) => context.decodeAudioData(await (await fetch(url)).arrayBuffer()));
    return new PracticeMicrophone(context, await Promise.all(sentences));
  }

  /** Begins to speak; answers which sentence it is. */
  speak(): number {
    const index = this.#next;
    this.#next = (index + 1) % this.#sentences.length;
    this.#playing = new AudioBufferSourceNode(this.#context, { buffer: this.#sentences[index]! });
    this.#playing.connect(this.output);
    this.#playing.start();
    return index;
  }

  hush(): void {
    this.#playing?.stop();
    this.#playing = undefined;
  }
}
