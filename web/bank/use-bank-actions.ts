import { importCaptions, listenAgain, setTranslation, type Recording } from '#contract/recordings';
import { createSharedComposable } from '@vueuse/core';
import type { KeptRecording } from '../feedback/changes/recorded.ts';
import { useOutbox } from '../outbox/outbox.ts';
import { rememberBytes } from '../player/local-media.ts';
import type { RecordingActions } from '../recordings/recording-actions.ts';
import { call } from '../session/api.ts';
import { soundOfChange, touchedInBank, type BankChange } from './bank-changes.ts';

/** The name of our changes in the outbox. */
export const SUBJECT = 'bank';

type Keep = Extract<BankChange, { type: 'keep' }>;

/** What people can do to their bank. Each resolves when it is safe in the browser's storage. */
export const useBankActions = createSharedComposable(() => {
  const outbox = useOutbox();

  function add(about: string, change: BankChange): Promise<void> {
    const sound = soundOfChange(change);
    if (sound) rememberBytes(sound);
    return outbox.add({ subject: SUBJECT, about, touches: touchedInBank(change), change });
  }

  const recordings: RecordingActions = {
    languageOf: ({ transcript, language }: Recording): string => transcript?.language ?? language,
    setSound: ({ id }, sound, edit) => add(id, { type: 'cut', recording: id, sound, edit }),
    mend: (recording, { text, read, language = recordings.languageOf(recording) }) =>
      add(recording.id, { type: 'mend', recording: recording.id, language, text, read }),
    translate: ({ id }, language, text) => add(id, { type: 'translate', recording: id, language, text }),
    async translateByMachine({ id }, language) {
      await call(setTranslation, { params: { recording: id }, body: { language, text: null } });
    },
    async importCaptions({ id }, language, content) {
      await call(importCaptions, { params: { recording: id }, body: { language, content } });
    },
    async listenAgain({ id }, language) {
      await call(listenAgain, { params: { recording: id }, body: { language } });
    },
  };

  return {
    recordings,
    keep: (change: Omit<Keep, 'type'>): Promise<void> => add(change.banked, { type: 'keep', ...change }),
    greet: (course: string, student: string, recording: (typeof KeptRecording)['_output']): Promise<void> =>
      add(course, { type: 'greet', course, student, recording }),
    /** Calls back whenever something of the bank has reached the server. */
    onSent: (listener: () => void): (() => void) =>
      outbox.onSent(({ subject }) => void (subject === SUBJECT && listener())),
  };
});
