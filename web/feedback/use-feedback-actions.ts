import type { Span } from '#core/audio';
import { createSharedComposable } from '@vueuse/core';
import type { Anchor } from '#core/anchor';
import type { Adjustment, Score } from '#core/grading';
import { importCaptions, listenAgain, setTranslation, type NewRecording, type Recording } from '#contract/recordings';
import type { Remark, RemarkChange } from '#contract/remarks';
import { NO_WORDS, type SaidWords } from '#contract/said';
import type { SoundEdit } from '#contract/sound';
import type { KeptFile, KeptSound } from '../outbox/kept.ts';
import { keptAgain } from '../player/media-url.ts';
import { rememberBytes } from '../player/local-media.ts';
import { call } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import { useSpeechSettings } from '../session/speech-settings.ts';
import type { DropBanked } from './changes/drop-banked.ts';
import { inverseOf, type Change, type UndoableChange } from './changes/index.ts';
import { useFeedback } from './feedback-store.ts';
import { useSitting } from './sitting.ts';

/** A recording that was made here. */
export type MadeRecording = Pick<NewRecording, 'id' | 'edit' | 'draft'> & { sound: KeptSound };

/** What a copy of a banked remark is made of. */
export type DropParts = Pick<DropBanked, 'banked' | 'anchor' | 'kind' | 'words' | 'around' | 'recording' | 'greeted'>;

export interface NewRemarkParts {
  id: string;
  anchor: Anchor;
  kind: string;
  words?: Partial<SaidWords>;
  recording?: MadeRecording | null;
  file?: KeptFile | null;
  /** The remark whose place it takes; that one is put aside. */
  instead?: string | undefined;
}

interface SaidInReply {
  text: string;
  recording: MadeRecording | null;
}

const now = (): string => new Date().toISOString();

/** What people can do to the feedback that is open, in words. Each resolves when it is safe in the browser's storage. */
export const useFeedbackActions = createSharedComposable(() => {
  const store = useFeedback();
  const session = useSession();
  const sitting = useSitting();
  const speech = useSpeechSettings();
  const languageOf = ({ transcript, language }: Recording): string =>
    transcript?.language ?? (store.work ? speech.languageIn(store.work.course) : language);
  const author = (): { id: string; name: string } => ({ id: session.person!.id, name: session.person!.name });

  /** Does something that can be undone. */
  async function act(label: string, change: UndoableChange): Promise<void> {
    const undo = store.feedback && inverseOf(store.feedback, change);
    await withUndo(label, change, undo);
  }

  async function withUndo(label: string, change: Change, undo: Change | undefined): Promise<void> {
    const submission = store.work!.id;
    await store.add(submission, change);
    if (undo) sitting.remember({ submission, label, undo, redo: change });
  }

  async function reply(remark: string, criterion: string | undefined, said: SaidInReply): Promise<void> {
    if (said.recording) rememberBytes(said.recording.sound);
    const made = { reply: crypto.randomUUID(), author: author(), at: now() };
    await store.add(store.work!.id, { type: 'answer', remark, criterion, ...said, ...made });
  }

  return {
    languageOf,
    /** Names its work, since the desk may show the next one by the time the take is ready. */
    async make(submission: string, parts: NewRemarkParts): Promise<void> {
      const { id: remark, anchor, kind, words, recording = null, file = null, instead } = parts;
      if (recording) rememberBytes(recording.sound);
      await store.add(submission, {
        type: 'make remark',
        ...{ remark, anchor, kind, recording, file, author: author(), madeAt: now() },
        words: { ...NO_WORDS, ...words },
      });
      sitting.remember({
        submission,
        label: 'new remark',
        undo: { type: 'put aside', remark, aside: true },
        redo: { type: 'put aside', remark, aside: false },
      });
      if (instead) await store.add(submission, { type: 'put aside', remark: instead, aside: true });
    },
    /** Puts a copy of a banked remark on a work; answers its id. */
    async drop(submission: string, parts: DropParts): Promise<string> {
      const remark = crypto.randomUUID();
      if (parts.greeted) rememberBytes(parts.greeted.sound);
      await store.add(submission, { type: 'drop banked', ...parts, remark, author: author(), madeAt: now() });
      sitting.remember({
        submission,
        label: 'remark from the bank',
        undo: { type: 'put aside', remark, aside: true },
        redo: { type: 'put aside', remark, aside: false },
      });
      return remark;
    },
    keepOriginal: (submission: string, recording: string, blob: Blob): Promise<void> =>
      store.add(submission, { type: 'keep original', recording, blob }),
    putAside: ({ id }: Pick<Remark, 'id'>): Promise<void> =>
      act('remark put aside', { type: 'put aside', remark: id, aside: true }),
    bringBack: ({ id }: Pick<Remark, 'id'>): Promise<void> =>
      act('remark brought back', { type: 'put aside', remark: id, aside: false }),
    amend: ({ id }: Pick<Remark, 'id'>, change: RemarkChange): Promise<void> =>
      act('change of a remark', { type: 'amend', remark: id, change }),
    setKind: ({ id }: Remark, kind: string): Promise<void> =>
      act('kind', { type: 'amend', remark: id, change: { kind } }),
    async setSound(recording: Recording, sound: KeptSound, edit: SoundEdit): Promise<void> {
      const { id, transcript } = recording;
      const before = await keptAgain(recording).catch(() => undefined);
      rememberBytes(sound);
      const whole = { kept: [{ start: 0, end: recording.sound.duration }], levelled: false };
      await withUndo(
        'edit of the sound',
        { type: 'replace sound', recording: id, sound, edit, transcript: null },
        before && { type: 'replace sound', recording: id, sound: before, edit: recording.edit ?? whole, transcript },
      );
    },
    mend: (
      recording: Recording,
      { text, read, language = languageOf(recording) }: { text: string; read: boolean; language?: string },
    ): Promise<void> => act('transcript', { type: 'mend', recording: recording.id, language, text, read }),
    translate: ({ id }: Recording, language: string, text: string): Promise<void> =>
      act('translation', { type: 'translate', recording: id, language, text }),
    async translateByMachine({ id }: Recording, language: string): Promise<void> {
      store.put(await call(setTranslation, { params: { recording: id }, body: { language, text: null } }));
    },
    async importCaptions({ id }: Recording, language: string, content: string): Promise<void> {
      store.put(await call(importCaptions, { params: { recording: id }, body: { language, content } }));
    },
    async listenAgain({ id }: Recording, language?: string): Promise<void> {
      store.put(await call(listenAgain, { params: { recording: id }, body: { language } }));
    },
    score: (criterion: string, score: Score | null): Promise<void> => act('score', { type: 'score', criterion, score }),
    adjust: (adjustment: Adjustment | null): Promise<void> => act('result', { type: 'adjust', adjustment }),
    givePoints: (question: string, points: number | null): Promise<void> =>
      act('points', { type: 'give points', question, points }),
    heard: ({ id }: Recording, played: Span[]): Promise<void> =>
      store.add(store.work!.id, { type: 'hear', recording: id, played, at: now() }),
    take: ({ id }: Remark, taken: boolean): Promise<void> =>
      store.add(store.work!.id, { type: 'take over', remark: id, taken, at: now() }),
    settle: ({ id }: Remark, settled: boolean): Promise<void> =>
      store.add(store.work!.id, { type: 'settle', remark: id, settled, by: author(), at: now() }),
    deal: ({ id }: Remark, dealt: boolean): Promise<void> =>
      store.add(store.work!.id, { type: 'deal with', remark: id, dealt, at: now() }),
    answer: ({ id }: Pick<Remark, 'id'>, said: SaidInReply): Promise<void> => reply(id, undefined, said),
    /** Asks about a criterion on which nothing was said; `id` becomes the remark that holds the thread. */
    ask: (id: string, criterion: string, said: SaidInReply): Promise<void> => reply(id, criterion, said),
  };
});
