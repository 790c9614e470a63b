import type { Recording } from '#contract/recordings';
import type { Remark } from '#contract/remarks';
import type { Feedback } from '#contract/submissions';

export const remarkIn = (feedback: Feedback, id: string): Remark | undefined =>
  [...feedback.remarks, ...feedback.aside].find((remark) => remark.id === id);

/** All recordings that a remark and the answers to it hold. */
const recordingsOf = ({ recording, replies }: Remark): Recording[] =>
  [recording, ...replies.map((reply) => reply.recording)].filter((one) => one !== null);

export const recordingIn = (feedback: Feedback, id: string): Recording | undefined =>
  [...feedback.remarks, ...feedback.aside].flatMap(recordingsOf).find((recording) => recording.id === id);

/** The feedback with what the server knows about one remark. */
export function withRemark(feedback: Feedback, remark: Remark): Feedback {
  if (feedback.aside.some(({ id }) => id === remark.id)) return changedRemark(feedback, remark.id, () => remark);
  const others = feedback.remarks.filter(({ id }) => id !== remark.id);
  return { ...feedback, remarks: [...others, remark].sort(inOrder) };
}

/** The feedback with what the server knows about one recording. */
export const withRecording = (feedback: Feedback, recording: Recording): Feedback =>
  changedRecording(feedback, recording.id, () => recording);

/** As the server answers them; where they stand in the margin is decided there. */
export const inOrder = (a: Remark, b: Remark): number => Date.parse(a.madeAt) - Date.parse(b.madeAt);

export function changedRemark(feedback: Feedback, id: string, change: (remark: Remark) => Partial<Remark>): Feedback {
  const apply = (remarks: Remark[]): Remark[] =>
    remarks.map((remark) => (remark.id === id ? { ...remark, ...change(remark) } : remark));
  return { ...feedback, remarks: apply(feedback.remarks), aside: apply(feedback.aside) };
}

export function changedRecording(
  feedback: Feedback,
  id: string,
  change: (recording: Recording) => Partial<Recording>,
): Feedback {
  const changed = (recording: Recording | null): Recording | null =>
    recording?.id === id ? { ...recording, ...change(recording) } : recording;
  const apply = (remarks: Remark[]): Remark[] =>
    remarks.map((remark) =>
      recordingsOf(remark).some((recording) => recording.id === id)
        ? {
            ...remark,
            recording: changed(remark.recording),
            replies: remark.replies.map((reply) => ({ ...reply, recording: changed(reply.recording) })),
          }
        : remark,
    );
  return { ...feedback, remarks: apply(feedback.remarks), aside: apply(feedback.aside) };
}
