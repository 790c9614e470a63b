import { hints } from '#core/transcript';
import type { NewRecording } from '#contract/recordings';
import type { Work } from '#contract/submissions';
import { createGlobalState, useLocalStorage } from '@vueuse/core';
import { watch } from 'vue';
import { useSpeechSettings } from '../session/speech-settings.ts';
import { ListeningAlong, listeningPlace, type ListeningPlace } from './recognition.ts';
import { useRecorder, type RecorderStatus } from './use-recorder.ts';

const MOST_HINTS = 120;

/** Whether this browser may listen on the device while its teacher speaks; it needs nobody's leave for that. */
export const useDeviceDictation = createGlobalState(() => useLocalStorage('device-dictation', true));

const ENGINES: Partial<Record<ListeningPlace, string>> = {
  device: 'this browser',
  cloud: 'this browser’s speech service',
};

/** Has the browser write down what is said while it is recorded, where it can and may. */
export function useDictation(): {
  prepare(work: Work): Promise<void>;
  /** Call before the recording begins; undefined where the browser does not listen. */
  listen(): { draft(): Promise<NewRecording['draft']> } | undefined;
} {
  const recorder = useRecorder();
  const settings = useSpeechSettings();
  const onDevice = useDeviceDictation();
  let place: ListeningPlace = 'nowhere';
  let language = 'en';
  let phrases: string[] = [];
  // Without settings nobody has agreed to anything; the server listens later.
  const known = settings.ensure().catch(() => undefined);

  async function prepare(work: Work): Promise<void> {
    place = 'nowhere';
    await known;
    language = settings.languageIn(work.course);
    phrases = hints([work.student.name], work.folio.text, MOST_HINTS);
    place = await listeningPlace(language);
  }

  const may = (): boolean =>
    (place === 'device' && onDevice.value) || (place === 'cloud' && settings.hasAgreed('browser cloud'));

  function listen(): { draft(): Promise<NewRecording['draft']> } | undefined {
    const engine = ENGINES[place];
    // What the practice microphone says is known.
    if (!engine || !may() || recorder.practising.value) return undefined;
    const spoken = language;
    let along: ListeningAlong | undefined;
    let text: Promise<string | undefined> = Promise.resolve(undefined);
    const follow = (status: RecorderStatus): void => {
      if (status === 'recording') {
        along ??= new ListeningAlong({
          ...{ language: spoken, onDevice: place === 'device', phrases },
          track: recorder.track(),
        });
        along.begin();
      } else if (status === 'paused') along?.pause();
      else if (status === 'finishing') text = along?.end() ?? text;
    };
    const stop = watch(recorder.status, follow, { flush: 'sync' });
    return {
      draft: async () => {
        stop();
        const heard = await text;
        along?.drop();
        return heard === undefined ? null : { language: spoken, text: heard, engine };
      },
    };
  }

  return { prepare, listen };
}
