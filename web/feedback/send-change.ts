import {
  changeRemark,
  changeSound,
  EMPTY_CONTENT,
  keepOriginal,
  makeRemark,
  makeReply,
  mendTranscript,
  putRemarkAside,
  reportHeard,
  setTranslation,
  takeSuggestion,
  type Remark,
} from '#contract/remarks';
import type { NewSound } from '#contract/sound';
import { chooseLevel, givePoints, type Feedback } from '#contract/submissions';
import { call } from '../session/api.ts';
import { withRemark, type Change, type KeptSound, type NewRemarkChange } from './changes.ts';

type Update = (feedback: Feedback) => Feedback;

/** Brings a change to the server and answers with what the server made of the feedback. */
export async function sendChange(submission: string, change: Change): Promise<Update> {
  switch (change.type) {
    case 'score': {
      const params = { submission, criterion: change.criterion };
      const { scores } = await call(chooseLevel, { params, body: { level: change.level } });
      return (feedback) => ({ ...feedback, scores });
    }
    case 'points': {
      const params = { submission, question: change.question };
      const { points } = await call(givePoints, { params, body: { points: change.points } });
      return (feedback) => ({ ...feedback, points });
    }
    case 'original':
      await call(keepOriginal, { params: { remark: change.remark }, file: change.blob });
      return (feedback) => feedback;
    default: {
      const remark = await sendRemarkChange(submission, change);
      return (feedback) => withRemark(feedback, remark);
    }
  }
}

function sendRemarkChange(
  submission: string,
  change: Exclude<Change, { type: 'score' | 'points' | 'original' }>,
): Promise<Remark> {
  const params = { remark: change.remark };
  switch (change.type) {
    case 'remark':
      return sendNewRemark(submission, change);
    case 'aside':
      return call(putRemarkAside, { params, body: { aside: change.aside } });
    case 'content':
      return call(changeRemark, { params, body: change.change });
    case 'sound':
      return call(changeSound, {
        params,
        body: { sound: newSound(change.sound), edit: change.edit, transcript: change.transcript ?? null },
        file: change.sound.blob,
      });
    case 'transcript':
      return call(mendTranscript, {
        params,
        body: { language: change.language, text: change.text, read: change.read ?? true },
      });
    case 'translation':
      return call(setTranslation, { params, body: { language: change.language, text: change.text } });
    case 'heard':
      return call(reportHeard, { params, body: { finished: change.finished } });
    case 'taken':
      return call(takeSuggestion, { params, body: { taken: change.taken } });
    case 'reply': {
      const { text, sound, reply } = change;
      return call(makeReply, {
        params: { ...params, reply },
        body: { text, sound: sound && newSound(sound) },
        ...(sound && { file: sound.blob }),
      });
    }
  }
}

function sendNewRemark(submission: string, change: NewRemarkChange): Promise<Remark> {
  const { remark, anchor, kind, sound, content = EMPTY_CONTENT, draft = null, edit = null, file } = change;
  return call(makeRemark, {
    params: { submission, remark },
    body: {
      ...{ anchor, kind, content, draft, edit },
      sound: sound && newSound(sound),
      file: file ? { name: file.name } : null,
    },
    files: [...(sound ? [sound.blob] : []), ...(file ? [file.blob] : [])],
  });
}

const newSound = ({ duration, peaks, microphone, picture }: KeptSound): NewSound => ({
  duration,
  peaks,
  microphone,
  picture: picture ?? null,
});
