// @vitest-environment happy-dom
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { installLanguage, ListeningAlong, listeningPlace, type RecognitionClass } from './recognition.ts';

/** Behaves as the Web Speech API says; the test decides what it hears. */
class Simulated extends EventTarget {
  static all: Simulated[] = [];
  static available: RecognitionClass['available'] | undefined;
  static install: RecognitionClass['install'] | undefined;
  lang = '';
  continuous = false;
  interimResults = false;
  processLocally = false;
  phrases: unknown[] = [];
  track: MediaStreamTrack | undefined;
  state: 'new' | 'running' | 'stopping' | 'ended' = 'new';
  /** Whether it ends as soon as it is asked to. */
  prompt = true;

  constructor() {
    super();
    Simulated.all.push(this);
  }
  start(track?: MediaStreamTrack): void {
    this.track = track;
    this.state = 'running';
  }
  stop(): void {
    this.state = 'stopping';
    if (this.prompt) this.end();
  }
  abort(): void {
    this.fail('aborted');
  }
  hear(...results: string[]): void {
    const list = results.map((transcript) => [{ transcript }]);
    this.dispatchEvent(Object.assign(new Event('result'), { results: list, resultIndex: 0 }));
  }
  fail(error: string): void {
    this.dispatchEvent(Object.assign(new Event('error'), { error }));
    this.end();
  }
  end(): void {
    if (this.state === 'ended') return;
    this.state = 'ended';
    this.dispatchEvent(new Event('end'));
  }
}

class Phrase {
  constructor(
    readonly phrase: string,
    readonly boost?: number,
  ) {}
}

const last = (): Simulated => Simulated.all.at(-1)!;
const listening = (more: object = {}): ListeningAlong => {
  const along = new ListeningAlong({ language: 'en-GB', onDevice: true, phrases: [], track: undefined, ...more });
  along.begin();
  return along;
};

beforeEach(() => {
  vi.useFakeTimers({ toFake: ['setTimeout', 'clearTimeout', 'performance'] });
  Simulated.all = [];
  Simulated.available = Simulated.install = undefined;
  vi.stubGlobal('SpeechRecognition', Simulated);
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
});

describe('where a browser listens', () => {
  const answers = (here: string, anywhere = 'available'): void => {
    Simulated.available = ({ processLocally }) => Promise.resolve((processLocally ? here : anywhere) as 'available');
  };

  it('is nowhere without the interface, and somewhere else where the browser does not say', async () => {
    expect(await listeningPlace('en')).toBe('cloud');
    vi.stubGlobal('SpeechRecognition', undefined);
    expect(await listeningPlace('en')).toBe('nowhere');
    vi.stubGlobal('webkitSpeechRecognition', Simulated);
    expect(await listeningPlace('en')).toBe('cloud');
  });

  it('is on the device where it can be, now or after something was fetched', async () => {
    answers('available');
    expect(await listeningPlace('en')).toBe('device');
    answers('downloadable');
    expect(await listeningPlace('en')).toBe('cloud');
    Simulated.install = vi.fn().mockResolvedValue(true);
    expect(await listeningPlace('en')).toBe('download');
    expect(await installLanguage('en')).toBe(true);
    expect(Simulated.install).toHaveBeenCalledWith({ langs: ['en'], processLocally: true });
  });

  it('is nowhere for a language that it does not know, and elsewhere where asking fails', async () => {
    answers('unavailable', 'unavailable');
    expect(await listeningPlace('tlh')).toBe('nowhere');
    answers('unavailable');
    expect(await listeningPlace('sw')).toBe('cloud');
    Simulated.available = () => Promise.reject(new TypeError());
    expect(await listeningPlace('sw')).toBe('cloud');
  });
});

describe('listening along', () => {
  it('hears the track that records, on the device, in the language', async () => {
    const track = {} as MediaStreamTrack;
    const along = listening({ track });
    expect(last()).toMatchObject({ lang: 'en-GB', processLocally: true, continuous: true, track });
    last().hear('look at', ' the tide ');
    last().hear('look at the', ' tide line');
    expect(await along.end()).toBe('look at the tide line');
  });

  it('does not ask a service elsewhere to listen on the device', () => {
    listening({ onDevice: false, phrases: ['wrack'] });
    expect(last()).toMatchObject({ processLocally: false, phrases: [] });
  });

  it('goes on where the browser ends by itself after a pause', async () => {
    const along = listening();
    last().hear('first this');
    last().fail('no-speech');
    expect(Simulated.all).toHaveLength(2);
    last().hear('then that');
    expect(await along.end()).toBe('first this then that');
  });

  it('hears nothing while the recording is paused', async () => {
    const along = listening();
    last().hear('before');
    along.pause();
    expect([Simulated.all.length, last().state]).toEqual([1, 'ended']);
    along.begin();
    last().hear('after');
    expect(await along.end()).toBe('before after');
  });

  it('gives the words of the work as hints, and does without where they are not taken', async () => {
    vi.stubGlobal('SpeechRecognitionPhrase', Phrase);
    const along = listening({ phrases: ['wrack', 'Quispe'] });
    expect(last().phrases).toEqual([new Phrase('wrack', 3), new Phrase('Quispe', 3)]);
    last().fail('phrases-not-supported');
    expect([Simulated.all.length, last().phrases]).toEqual([2, []]);
    last().hear('all the same');
    expect(await along.end()).toBe('all the same');
  });

  it.each(['network', 'not-allowed', 'audio-capture', 'language-not-supported'])(
    'leaves it to the server where it breaks off: %s',
    async (error) => {
      const along = listening();
      last().hear('only half of');
      last().fail(error);
      expect(Simulated.all).toHaveLength(1);
      expect(await along.end()).toBeUndefined();
    },
  );

  it('does not begin again and again in vain', async () => {
    const along = listening();
    for (let times = 0; times < 10; times++) last().end();
    expect(Simulated.all).toHaveLength(3);
    expect(await along.end()).toBeUndefined();
  });

  it('waits for the last words, but not for long', async () => {
    const patient = listening();
    const session = last();
    session.prompt = false;
    const text = patient.end();
    session.hear('the last word');
    session.end();
    expect(await text).toBe('the last word');

    const hanging = listening();
    last().prompt = false;
    const never = hanging.end();
    await vi.advanceTimersByTimeAsync(2000);
    expect(await never).toBeUndefined();
    expect(last().state).toBe('ended');
  });

  it('says nothing where nothing was said, or the recogniser cannot begin', async () => {
    expect(await listening().end()).toBeUndefined();
    vi.spyOn(Simulated.prototype, 'start').mockImplementation(() => {
      throw new DOMException('', 'InvalidStateError');
    });
    expect(await listening().end()).toBeUndefined();
  });
});
