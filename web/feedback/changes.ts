import type { Anchor } from '#core/anchor';
import { carried, retimed, textOfWords, type Transcript } from '#core/transcript';
import type { AttachedFile, NewRemark, Remark, RemarkChange, RemarkContent, Reply } from '#contract/remarks';
import { EMPTY_CONTENT } from '#contract/remarks';
import type { NewSound, SoundEdit } from '#contract/sound';
import type { Feedback } from '#contract/submissions';

/** A recording that is still in the browser's hands. */
export interface KeptSound extends NewSound {
  blob: Blob;
  /** Of the bytes, in hexadecimal; the server will come to the same. */
  sha256: string;
}

/** A file that is to go along with a remark. */
export interface KeptFile extends AttachedFile {
  blob: Blob;
}

interface Author {
  id: string;
  name: string;
}

export interface NewRemarkChange {
  type: 'remark';
  remark: string;
  author: Author;
  anchor: Anchor;
  kind: string;
  content?: RemarkContent;
  sound: KeptSound | null;
  /** What the browser heard. */
  draft?: NewRemark['draft'];
  edit?: SoundEdit | null;
  file?: KeptFile | null;
  madeAt: string;
}

/** Something that a person did to the feedback on a work. Kept in the browser until the server has it. */
export type Change =
  | NewRemarkChange
  | { type: 'aside'; remark: string; aside: boolean }
  | { type: 'content'; remark: string; change: RemarkChange }
  | { type: 'sound'; remark: string; sound: KeptSound; edit: SoundEdit; transcript?: Transcript | null }
  | { type: 'original'; remark: string; blob: Blob }
  | { type: 'transcript'; remark: string; language: string; text: string; read?: boolean }
  | { type: 'translation'; remark: string; language: string; text: string }
  | { type: 'score'; criterion: string; level: string | null }
  | { type: 'points'; question: string; points: number | null }
  | { type: 'heard'; remark: string; finished: boolean; at: string }
  | { type: 'taken'; remark: string; taken: boolean; at: string }
  | { type: 'reply'; remark: string; reply: string; author: Author; text: string; sound: KeptSound | null; at: string };

/** The feedback as it will be when the server has taken the change. Doing the same change twice does it once. */
export function applyChange(feedback: Feedback, change: Change): Feedback {
  switch (change.type) {
    case 'remark':
      return withRemark(feedback, newRemark(change));
    case 'aside':
      return change.aside
        ? moved(feedback, change.remark, 'remarks', 'aside')
        : moved(feedback, change.remark, 'aside', 'remarks');
    case 'content':
      return changed(feedback, change.remark, () => given(change.change));
    case 'sound':
      return changed(feedback, change.remark, (remark) => ({
        sound: soundOf(change.sound),
        edit: change.edit,
        transcript: change.transcript ?? stillHeard(remark, change.edit),
      }));
    case 'original':
      return feedback;
    case 'transcript':
      return changed(feedback, change.remark, (remark) => ({ transcript: mendedTranscript(remark, change) }));
    case 'translation':
      return changed(feedback, change.remark, ({ translations }) => ({
        translations: [
          ...translations.filter(({ language }) => language !== change.language),
          ...(change.text === ''
            ? []
            : [{ language: change.language, text: change.text, source: 'person' as const, engine: '' }]),
        ].sort((a, b) => a.language.localeCompare(b.language)),
      }));
    case 'score':
      return { ...feedback, scores: scored(feedback.scores, change.criterion, change.level) };
    case 'points':
      return { ...feedback, points: scored(feedback.points, change.question, change.points) };
    case 'heard':
      return changed(feedback, change.remark, ({ heard }) => ({
        heard: {
          begunAt: heard?.begunAt ?? change.at,
          finishedAt: heard?.finishedAt ?? (change.finished ? change.at : null),
        },
      }));
    case 'taken':
      return changed(feedback, change.remark, () => ({ takenAt: change.taken ? change.at : null }));
    case 'reply':
      return changed(feedback, change.remark, ({ replies }) => ({
        replies: [...replies.filter((reply) => reply.id !== change.reply), newReply(change)],
      }));
  }
}

/**
 * The change that takes another back, seen from before it; undefined where it cannot be taken back. A sound that is replaced
 * is taken back by whoever has the bytes of the one before.
 */
export function inverseOf(feedback: Feedback, change: Change): Change | undefined {
  const remark = 'remark' in change ? remarkIn(feedback, change.remark) : undefined;
  switch (change.type) {
    case 'remark':
      return { type: 'aside', remark: change.remark, aside: true };
    case 'aside':
      return { ...change, aside: !change.aside };
    case 'content':
      return remark && { ...change, change: contentBefore(remark, change.change) };
    case 'transcript':
      return {
        ...change,
        language: remark?.transcript?.language ?? change.language,
        text: remark?.transcript?.text ?? '',
        read: remark?.transcript?.read ?? true,
      };
    case 'translation':
      return {
        ...change,
        text: remark?.translations.find(({ language }) => language === change.language)?.text ?? '',
      };
    case 'score':
      return { ...change, level: feedback.scores[change.criterion] ?? null };
    case 'points':
      return { ...change, points: feedback.points[change.question] ?? null };
    default:
      return undefined;
  }
}

/** The words that are left after a cut, at their new times. */
function stillHeard({ transcript, edit: before }: Remark, edit: SoundEdit): Transcript | null {
  if (!transcript || transcript.words.length === 0) return transcript;
  const words = retimed(transcript.words, before?.kept ?? null, edit.kept);
  return { ...transcript, words, text: words.length < transcript.words.length ? textOfWords(words) : transcript.text };
}

/** As the server will make it; until all words are aligned, those that stayed keep their times. */
function mendedTranscript(
  { transcript: before, sound }: Remark,
  { language, text, read = true }: Extract<Change, { type: 'transcript' }>,
): Remark['transcript'] {
  if (before && before.text === text && before.language === language) return { ...before, read };
  const words = carried(before?.words ?? [], text, sound?.duration ?? 0);
  return { language, text, words, source: 'person', engine: '', approximate: true, read };
}

const remarkIn = (feedback: Feedback, id: string): Remark | undefined =>
  [...feedback.remarks, ...feedback.aside].find((remark) => remark.id === id);

const contentBefore = (remark: Remark, change: RemarkChange): RemarkChange =>
  Object.fromEntries(Object.keys(change).map((name) => [name, remark[name as keyof RemarkChange]]));

/** Without what is not said: an absent property and an undefined one are the same to the wire. */
const given = (change: RemarkChange): Partial<Remark> =>
  Object.fromEntries(Object.entries(change).filter(([, value]) => value !== undefined)) as Partial<Remark>;

/** The feedback with what the server knows about one remark. */
export function withRemark(feedback: Feedback, remark: Remark): Feedback {
  if (feedback.aside.some(({ id }) => id === remark.id)) return changed(feedback, remark.id, () => remark);
  const others = feedback.remarks.filter(({ id }) => id !== remark.id);
  return { ...feedback, remarks: [...others, remark].sort(inOrder) };
}

/** As the server answers them; where they stand in the margin is decided there. */
const inOrder = (a: Remark, b: Remark): number => Date.parse(a.madeAt) - Date.parse(b.madeAt);

function changed(feedback: Feedback, id: string, change: (remark: Remark) => Partial<Remark>): Feedback {
  const apply = (remarks: Remark[]): Remark[] =>
    remarks.map((remark) => (remark.id === id ? { ...remark, ...change(remark) } : remark));
  return { ...feedback, remarks: apply(feedback.remarks), aside: apply(feedback.aside) };
}

function moved(feedback: Feedback, id: string, from: 'remarks' | 'aside', to: 'remarks' | 'aside'): Feedback {
  const remark = feedback[from].find((candidate) => candidate.id === id);
  if (!remark) return feedback;
  return {
    ...feedback,
    [from]: feedback[from].filter((candidate) => candidate !== remark),
    [to]: [...feedback[to], remark].sort(inOrder),
  };
}

function scored<T>(scores: Record<string, T>, id: string, score: T | null): Record<string, T> {
  const { [id]: _before, ...others } = scores;
  return score === null ? others : { ...others, [id]: score };
}

const newRemark = (change: NewRemarkChange): Remark => ({
  ...(change.content ?? EMPTY_CONTENT),
  id: change.remark,
  author: change.author,
  kind: change.kind,
  anchor: change.anchor,
  sound: change.sound && soundOf(change.sound),
  edit: change.edit ?? null,
  file: change.file ? { sha256: change.file.sha256, name: change.file.name, byteLength: change.file.byteLength } : null,
  transcript: change.draft ? { ...change.draft, words: [], source: 'machine', approximate: true, read: false } : null,
  translations: [],
  speech: null,
  madeAt: change.madeAt,
  takenAt: null,
  heard: null,
  replies: [],
});

const newReply = (change: Extract<Change, { type: 'reply' }>): Reply => ({
  id: change.reply,
  author: change.author,
  at: change.at,
  text: change.text,
  sound: change.sound && soundOf(change.sound),
});

const soundOf = ({ sha256, duration, peaks, picture }: KeptSound): NonNullable<Remark['sound']> => ({
  sha256,
  duration,
  peaks,
  picture,
});
