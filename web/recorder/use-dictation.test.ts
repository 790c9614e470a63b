// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { ref } from 'vue';
import type { SpeechSettings } from '#contract/speech';
import type { Work } from '#contract/submissions';
import { useSpeechSettings } from '../session/speech-settings.ts';
import type { Recorder, RecorderStatus } from './use-recorder.ts';

const recorder = { status: ref<RecorderStatus>('ready'), practising: ref(false), track: () => undefined };
vi.mock('./use-recorder.ts', () => ({
  useRecorder: () => recorder as Pick<Recorder, 'status' | 'practising' | 'track'>,
}));
const { useDeviceDictation, useDictation } = await import('./use-dictation.ts');

const begun: { lang: string; processLocally: boolean }[] = [];
let onDevice = true;
class Recognition extends EventTarget {
  static available = ({ processLocally }: { processLocally: boolean }) =>
    Promise.resolve(processLocally && !onDevice ? 'unavailable' : 'available');
  lang = '';
  processLocally = false;
  start(): void {
    begun.push(this);
    this.dispatchEvent(Object.assign(new Event('result'), { results: [[{ transcript: 'what was said' }]] }));
  }
  stop(): void {
    this.dispatchEvent(new Event('end'));
  }
  abort = (): void => undefined;
}

const SETTINGS: SpeechSettings = {
  engines: [],
  translators: [],
  aligned: [],
  missing: [],
  agreements: [],
  language: null,
  courses: [{ id: 'shore', title: 'Shore', language: 'fr' }],
};
const work = { course: 'shore', student: { name: 'Amaru Quispe' }, folio: { text: 'Wrack.' } } as Work;

async function dictation(settings: Partial<SpeechSettings> = {}) {
  const store = useSpeechSettings();
  store.settings = { ...SETTINGS, ...settings };
  store.ensure = () => Promise.resolve();
  const dictation = useDictation();
  await dictation.prepare(work);
  return dictation;
}

function take(): void {
  for (const status of ['starting', 'recording', 'paused', 'recording', 'finishing', 'ready'] as const)
    recorder.status.value = status;
}

beforeEach(() => {
  setActivePinia(createPinia());
  vi.stubGlobal('SpeechRecognition', Recognition);
  begun.length = 0;
  onDevice = true;
  recorder.practising.value = false;
});
afterEach(() => vi.unstubAllGlobals());

describe('dictation in the browser', () => {
  it('listens in the language of the course while it is recorded, and not in a pause', async () => {
    const ear = (await dictation()).listen()!;
    expect(begun).toHaveLength(0);
    take();
    expect(begun.map(({ lang, processLocally }) => [lang, processLocally])).toEqual([
      ['fr', true],
      ['fr', true],
    ]);
    const draft = { language: 'fr', text: 'what was said what was said', engine: 'this browser' };
    expect(await ear.draft()).toEqual(draft);
    take();
    expect(begun).toHaveLength(2);
  });

  it('listens in the teacher’s own language before that of the course', async () => {
    const ear = (await dictation({ language: 'es' })).listen()!;
    take();
    expect(begun[0]!.lang).toBe('es');
    await ear.draft();
  });

  it('is not wanted where the practice microphone speaks, or the teacher has switched it off', async () => {
    const { listen } = await dictation();
    recorder.practising.value = true;
    expect(listen()).toBeUndefined();
    recorder.practising.value = false;
    useDeviceDictation().value = false;
    expect(listen()).toBeUndefined();
    useDeviceDictation().value = true;
    await listen()!.draft();
  });

  it('sends no sound away before the teacher has agreed to it', async () => {
    onDevice = false;
    expect((await dictation()).listen()).toBeUndefined();
    const ear = (await dictation({ agreements: ['browser cloud'] })).listen()!;
    take();
    expect(begun[0]!.processLocally).toBe(false);
    expect((await ear.draft())?.engine).toBe('this browser’s speech service');
    expect((await dictation({ agreements: ['speech server'] })).listen()).toBeUndefined();
  });
});
