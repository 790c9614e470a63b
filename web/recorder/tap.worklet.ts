/// <reference lib="webworker" />

/* Runs in the browser's audio thread: hands samples over in pieces, and what is left when it is asked to flush. */

/** Seconds of the context's clock at the beginning of what is being processed. */
declare const currentTime: number;
declare const sampleRate: number;
declare const registerProcessor: (name: string, processor: new () => AudioWorkletProcessor) => void;
declare class AudioWorkletProcessor {
  readonly port: MessagePort;
}

const PIECE = 1024;

class Tap extends AudioWorkletProcessor {
  #piece = new Float32Array(PIECE);
  #filled = 0;
  #until = 0;

  constructor() {
    super();
    this.port.onmessage = () => {
      this.#send();
      this.port.postMessage('flushed');
    };
  }

  process([[samples]]: [[Float32Array | undefined]]): boolean {
    if (samples) {
      this.#piece.set(samples, this.#filled);
      this.#filled += samples.length;
      this.#until = currentTime + samples.length / sampleRate;
      if (this.#filled === PIECE) this.#send();
    }
    return true;
  }

  #send(): void {
    const samples = this.#piece.slice(0, this.#filled);
    this.#filled = 0;
    this.port.postMessage({ samples, until: this.#until }, [samples.buffer]);
  }
}

registerProcessor('tap', Tap);
