/*
 * The browser's own recogniser: the Web Speech API (https://webaudio.github.io/web-speech-api/, draft of its Community Group).
 * TypeScript knows its events but not the interface itself.
 */

export interface Recognition extends EventTarget {
  lang: string;
  continuous: boolean;
  interimResults: boolean;
  processLocally?: boolean;
  phrases?: unknown[];
  start(track?: MediaStreamTrack): void;
  stop(): void;
  abort(): void;
}

interface Wanted {
  langs: string[];
  processLocally: boolean;
}

export interface RecognitionClass {
  new (): Recognition;
  available?(wanted: Wanted): Promise<'unavailable' | 'downloadable' | 'downloading' | 'available'>;
  install?(wanted: Wanted): Promise<boolean>;
}

type Phrase = new (phrase: string, boost?: number) => unknown;

interface Globals {
  SpeechRecognition?: RecognitionClass;
  webkitSpeechRecognition?: RecognitionClass;
  SpeechRecognitionPhrase?: Phrase;
}

const globals = (): Globals => globalThis as Globals;
const recognitionClass = (): RecognitionClass | undefined =>
  globals().SpeechRecognition ?? globals().webkitSpeechRecognition;

/** Where the sound would go: `download` stays on the device once the browser has fetched what it needs. */
export type ListeningPlace = 'device' | 'download' | 'cloud' | 'nowhere';

/** Where this browser would listen to a language. A browser that does not say is one that sends the sound away. */
export async function listeningPlace(language: string): Promise<ListeningPlace> {
  const Recognition = recognitionClass();
  if (!Recognition) return 'nowhere';
  try {
    const here = await Recognition.available?.({ langs: [language], processLocally: true });
    if (here === 'available') return 'device';
    if ((here === 'downloadable' || here === 'downloading') && Recognition.install) return 'download';
    const anywhere = await Recognition.available?.({ langs: [language], processLocally: false });
    return anywhere === 'unavailable' ? 'nowhere' : 'cloud';
  } catch {
    return 'cloud';
  }
}

/** Has the browser fetch what it needs to listen on the device; answers whether it can now. */
export const installLanguage = async (language: string): Promise<boolean> =>
  (await recognitionClass()?.install?.({ langs: [language], processLocally: true })) ?? false;

/** How much likelier than usual a hint is; from 0 to 10. */
const BOOST = 3;
/** A recogniser that ends so soon after it began, and so often in a row, is not asked again. */
const VAIN_MILLISECONDS = 400;
const MOST_IN_VAIN = 3;
/** How long after the last word its text is waited for. */
const PATIENCE_MILLISECONDS = 1200;
/** What comes by itself when nobody speaks for a while. */
const HARMLESS = ['no-speech', 'aborted'];

interface Options {
  language: string;
  onDevice: boolean;
  phrases: readonly string[];
  /** The microphone that records; the browser's own choice where it is left out. */
  track: MediaStreamTrack | undefined;
}

/** Listens along with a recording. Browsers end by themselves after a pause, so it begins again until it is ended. */
export class ListeningAlong {
  readonly #options: Options;
  #session: Recognition | undefined;
  #begunAt = 0;
  #inVain = 0;
  #wanted = false;
  #broken = false;
  #hinted: boolean;
  /** What sessions that have ended heard. */
  #before: string[] = [];
  /** What the running one heard. */
  #now = '';
  #idle: () => void = () => undefined;

  constructor(options: Options) {
    this.#options = options;
    this.#hinted = options.onDevice && options.phrases.length > 0;
  }

  /** Begins, or goes on after a pause. */
  begin(): void {
    this.#wanted = true;
    if (!this.#session && !this.#broken) this.#start();
  }

  pause(): void {
    this.#wanted = false;
    this.#session?.stop();
  }

  /** Ends; answers what was said, or undefined where it was not heard in full. */
  async end(): Promise<string | undefined> {
    this.pause();
    const late = await new Promise<boolean>((resolve) => {
      if (!this.#session) return resolve(false);
      const timer = setTimeout(() => resolve(true), PATIENCE_MILLISECONDS);
      this.#idle = () => {
        clearTimeout(timer);
        resolve(false);
      };
    });
    if (late) this.drop();
    const text = [...this.#before, this.#now].join(' ').replaceAll(/\s+/gu, ' ').trim();
    return late || this.#broken || text === '' ? undefined : text;
  }

  /** Ends without an answer. */
  drop(): void {
    this.#wanted = false;
    this.#broken = true;
    this.#session?.abort();
  }

  #start(): void {
    const session = new (recognitionClass()!)();
    session.lang = this.#options.language;
    session.continuous = true;
    session.interimResults = true;
    if (this.#options.onDevice) session.processLocally = true;
    this.#hint(session);
    session.addEventListener('result', (event) => (this.#now = textOf(event as SpeechResultEvent)));
    session.addEventListener('error', (event) => this.#fail((event as SpeechErrorEvent).error));
    session.addEventListener('end', () => this.#ended());
    try {
      session.start(this.#options.track);
      this.#session = session;
      this.#begunAt = performance.now();
    } catch {
      this.#broken = true;
    }
  }

  #hint(session: Recognition): void {
    const Phrase = globals().SpeechRecognitionPhrase;
    if (!this.#hinted || !Phrase || !('phrases' in session)) return;
    session.phrases = this.#options.phrases.map((phrase) => new Phrase(phrase, BOOST));
  }

  #fail(error: string): void {
    if (error === 'phrases-not-supported' && this.#hinted) this.#hinted = false;
    else if (!HARMLESS.includes(error)) this.#broken = true;
  }

  #ended(): void {
    this.#session = undefined;
    const vain = this.#now === '' && performance.now() - this.#begunAt < VAIN_MILLISECONDS;
    this.#inVain = vain ? this.#inVain + 1 : 0;
    if (this.#inVain >= MOST_IN_VAIN) this.#broken = true;
    if (this.#now !== '') this.#before.push(this.#now);
    this.#now = '';
    if (this.#wanted && !this.#broken) this.#start();
    else this.#idle();
  }
}

interface SpeechResultEvent extends Event {
  results: ArrayLike<ArrayLike<{ transcript: string }>>;
}

interface SpeechErrorEvent extends Event {
  error: string;
}

const textOf = ({ results }: SpeechResultEvent): string =>
  Array.from(results, (result) => result[0]?.transcript.trim() ?? '')
    .filter((text) => text !== '')
    .join(' ');
