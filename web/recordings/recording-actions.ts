import type { Recording } from '#contract/recordings';
import type { SoundEdit } from '#contract/sound';
import { inject, provide, type InjectionKey } from 'vue';
import type { KeptSound } from '../outbox/kept.ts';

/** What can be done to a recording. Whoever shows recordings that may be changed provides it. */
export interface RecordingActions {
  /** What is probably spoken, where no transcript says so. */
  languageOf(recording: Recording): string;
  setSound(recording: Recording, sound: KeptSound, edit: SoundEdit): Promise<void>;
  /** Puts words in the place of the transcript. */
  mend(recording: Recording, mended: { text: string; read: boolean; language?: string }): Promise<void>;
  translate(recording: Recording, language: string, text: string): Promise<void>;
  /** A machine's words in another language; the server has to be there for it. */
  translateByMachine(recording: Recording, language: string): Promise<void>;
  importCaptions(recording: Recording, language: string, content: string): Promise<void>;
  listenAgain(recording: Recording, language?: string): Promise<void>;
}

export const RECORDING_ACTIONS: InjectionKey<RecordingActions> = Symbol('recording actions');

export const provideRecordingActions = (actions: RecordingActions): void => provide(RECORDING_ACTIONS, actions);

export function useRecordingActions(): RecordingActions {
  const actions = inject(RECORDING_ACTIONS);
  if (!actions) throw new Error('Nobody provides what can be done to recordings here');
  return actions;
}
