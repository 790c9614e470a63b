import { retimedTrack } from '#core/talk';
import { retimed, textOfWords } from '#core/transcript';
import { Id } from '#contract/basics';
import { changeSound, type Recording } from '#contract/recordings';
import { SoundEdit } from '#contract/sound';
import { Transcript } from '#contract/transcripts';
import type { Feedback } from '#contract/submissions';
import { z } from 'zod';
import { KeptSound } from '../../outbox/kept.ts';
import { call } from '../../session/api.ts';
import type { Lasting } from './change.ts';
import { changedRecording, withRecording } from './on-feedback.ts';
import { newSound, soundOf } from './recorded.ts';

export const ReplaceSound = z.object({
  type: z.literal('replace sound'),
  recording: Id,
  sound: KeptSound,
  edit: SoundEdit,
  transcript: Transcript.nullable(),
});
export type ReplaceSound = z.infer<typeof ReplaceSound>;

/** It is taken back by whoever has the bytes of the sound before. */
export const replacingSound: Lasting<ReplaceSound> = {
  schema: ReplaceSound,
  apply: (feedback, { recording, sound, edit, transcript }) =>
    changedRecording(withTrack(feedback, recording, edit), recording, (before) => ({
      ...{ sound: soundOf(sound), edit },
      transcript: transcript ?? stillHeard(before, edit),
    })),
  async send(_, { recording, sound, edit, transcript }) {
    const body = { sound: newSound(sound), edit, transcript };
    const changed = await call(changeSound, { params: { recording }, body, files: [sound.blob] });
    return (feedback) => withRecording(withTrack(feedback, recording, edit), changed);
  },
  touches: ({ recording }) => [recording],
};

/** What was done while it was spoken, at its new times. Call while the recording still has its edit of before. */
const withTrack = (feedback: Feedback, recording: string, edit: SoundEdit): Feedback => ({
  ...feedback,
  remarks: feedback.remarks.map((remark) =>
    remark.talk && remark.recording?.id === recording
      ? { ...remark, talk: retimedTrack(remark.talk, remark.recording.edit?.kept ?? null, edit.kept) }
      : remark,
  ),
});

/** The words that are left after a cut, at their new times. */
function stillHeard({ transcript, edit: before }: Recording, edit: SoundEdit): Transcript | null {
  if (!transcript || transcript.words.length === 0) return transcript;
  const words = retimed(transcript.words, before?.kept ?? null, edit.kept);
  return { ...transcript, words, text: words.length < transcript.words.length ? textOfWords(words) : transcript.text };
}
