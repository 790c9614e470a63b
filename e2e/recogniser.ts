import type { Page } from '@playwright/test';

export interface SimulatedRecogniser {
  /** Whether it listens on the device. */
  onDevice: boolean;
  /** What it hears while it runs, a word every 200 ms. */
  hears: string;
}

/** Puts a simulated recogniser of the Web Speech API in the place of the browser's own. */
export async function simulateRecogniser(page: Page, { onDevice, hears }: SimulatedRecogniser): Promise<void> {
  await page.addInitScript(
    ({ local, words }) => {
      class Simulated extends EventTarget {
        static available = (wanted: { processLocally: boolean }): Promise<string> =>
          Promise.resolve(wanted.processLocally && !local ? 'unavailable' : 'available');
        processLocally = false;
        phrases: { phrase: string }[] = [];
        #timer = 0;
        #heard = 0;
        start(): void {
          const phrases = this.phrases.map(({ phrase }) => phrase);
          Object.assign(window, { recogniserWasAsked: { processLocally: this.processLocally, phrases } });
          this.#timer = window.setInterval(() => {
            this.#heard = Math.min(words.length, this.#heard + 1);
            const results = [[{ transcript: words.slice(0, this.#heard).join(' ') }]];
            this.dispatchEvent(Object.assign(new Event('result'), { results }));
          }, 200);
        }
        stop(): void {
          window.clearInterval(this.#timer);
          window.setTimeout(() => this.dispatchEvent(new Event('end')), 50);
        }
        abort(): void {
          this.stop();
        }
      }
      class Phrase {
        readonly phrase: string;
        constructor(phrase: string) {
          this.phrase = phrase;
        }
      }
      Object.assign(window, { SpeechRecognition: Simulated, SpeechRecognitionPhrase: Phrase });
    },
    { local: onDevice, words: hears.split(' ') },
  );
}
