import { keepGreeting, keepInBank, NewBanked } from '#contract/bank';
import { Id, LanguageTag } from '#contract/basics';
import { changeSound, mendTranscript, setTranslation } from '#contract/recordings';
import { SoundEdit } from '#contract/sound';
import { SpokenText } from '#contract/transcripts';
import { z } from 'zod';
import { KeptRecording, newSound } from '../feedback/changes/recorded.ts';
import { KeptSound } from '../outbox/kept.ts';
import { call } from '../session/api.ts';

/** What a teacher does to their bank; it is kept in the browser until the server has it. */
export const BankChange = z.discriminatedUnion('type', [
  z.object({
    type: z.literal('keep'),
    banked: Id,
    about: NewBanked.omit({ recording: true, from: true }),
    recording: KeptRecording.nullable(),
    /** The remark that is kept; it may be on its way itself. */
    from: Id.nullable(),
  }),
  z.object({ type: z.literal('greet'), course: Id, student: Id, recording: KeptRecording }),
  z.object({ type: z.literal('cut'), recording: Id, sound: KeptSound, edit: SoundEdit }),
  z.object({ type: z.literal('mend'), recording: Id, language: LanguageTag, text: SpokenText, read: z.boolean() }),
  z.object({ type: z.literal('translate'), recording: Id, language: LanguageTag, text: SpokenText }),
]);
export type BankChange = z.infer<typeof BankChange>;

export function sendBankChange(change: BankChange): Promise<unknown> {
  switch (change.type) {
    case 'keep': {
      const { banked, about, recording, from } = change;
      return call(keepInBank, {
        params: { banked },
        body: { ...about, from, recording: recording && { ...recording, sound: newSound(recording.sound) } },
        files: recording ? [recording.sound.blob] : [],
      });
    }
    case 'greet': {
      const { course, student, recording } = change;
      return call(keepGreeting, {
        params: { course, student },
        body: { recording: { ...recording, sound: newSound(recording.sound) } },
        files: [recording.sound.blob],
      });
    }
    case 'cut': {
      const { recording, sound, edit } = change;
      return call(changeSound, { params: { recording }, body: { sound: newSound(sound), edit }, files: [sound.blob] });
    }
    case 'mend': {
      const { recording, language, text, read } = change;
      return call(mendTranscript, { params: { recording }, body: { language, text, read } });
    }
    case 'translate': {
      const { recording, language, text } = change;
      return call(setTranslation, { params: { recording }, body: { language, text } });
    }
  }
}

/** Ids of the banked remarks, remarks and recordings that it goes on with. */
export function touchedInBank(change: BankChange): string[] {
  switch (change.type) {
    case 'keep':
      return [change.banked, ...(change.from ? [change.from] : []), ...(change.recording ? [change.recording.id] : [])];
    case 'greet':
      return [change.recording.id, change.student];
    default:
      return [change.recording];
  }
}

export const soundOfChange = (change: BankChange): KeptSound | undefined => {
  if (change.type === 'cut') return change.sound;
  return change.type === 'keep' || change.type === 'greet' ? change.recording?.sound : undefined;
};
