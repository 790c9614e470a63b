import {
  changeRemark,
  makeRemark,
  makeReply,
  mendTranscript,
  putRemarkAside,
  reportHeard,
  type Remark,
} from '#contract/remarks';
import { chooseLevel, givePoints, type Feedback } from '#contract/submissions';
import { call } from './api.ts';
import { withRemark, type Change, type KeptSound } from './changes.ts';

/** Brings a change to the server and answers with what the server made of the feedback. */
export async function sendChange(submission: string, change: Change): Promise<(feedback: Feedback) => Feedback> {
  if (change.type === 'score') {
    const { scores } = await call(chooseLevel, {
      params: { submission, criterion: change.criterion },
      body: { level: change.level },
    });
    return (feedback) => ({ ...feedback, scores });
  }
  if (change.type === 'points') {
    const { points } = await call(givePoints, {
      params: { submission, question: change.question },
      body: { points: change.points },
    });
    return (feedback) => ({ ...feedback, points });
  }
  const remark = await sendRemarkChange(submission, change);
  return (feedback) => withRemark(feedback, remark);
}

function sendRemarkChange(submission: string, change: Exclude<Change, { type: 'score' | 'points' }>): Promise<Remark> {
  const params = { remark: change.remark };
  switch (change.type) {
    case 'remark': {
      const { anchor, kind, sound } = change;
      return call(makeRemark, {
        params: { ...params, submission },
        body: { anchor, kind, sound: newSound(sound) },
        file: sound.blob,
      });
    }
    case 'aside':
      return call(putRemarkAside, { params, body: { aside: change.aside } });
    case 'kind':
      return call(changeRemark, { params, body: { kind: change.kind } });
    case 'transcript':
      return call(mendTranscript, { params, body: { language: change.language, text: change.text } });
    case 'heard':
      return call(reportHeard, { params, body: { finished: change.finished } });
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

const newSound = ({ duration, peaks, microphone }: KeptSound) => ({ duration, peaks, microphone });
