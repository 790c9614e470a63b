import { createSharedComposable } from '@vueuse/core';
import type { Anchor } from '#core/anchor';
import {
  EMPTY_CONTENT,
  importCaptions,
  listenAgain,
  setTranslation,
  type NewRemark,
  type Remark,
  type RemarkChange,
  type RemarkContent,
} from '#contract/remarks';
import type { SoundEdit } from '#contract/sound';
import { call } from '../session/api.ts';
import { inverseOf, type Change, type KeptFile, type KeptSound } from './changes.ts';
import { useFeedback } from './feedback-store.ts';
import { useOutbox } from '../outbox/outbox.ts';
import { useSession } from '../session/session.ts';
import { useSitting } from './sitting.ts';
import { keptAgain, rememberSound } from '../player/sound-url.ts';
import { useSpeechSettings } from '../session/speech-settings.ts';

export interface NewRemarkParts {
  id: string;
  anchor: Anchor;
  kind: string;
  content?: Partial<RemarkContent>;
  sound?: KeptSound | null;
  /** What the browser heard. */
  draft?: NewRemark['draft'];
  edit?: SoundEdit | null;
  file?: KeptFile | null;
  /** The remark whose place it takes; that one is put aside. */
  instead?: string | undefined;
}

const now = (): string => new Date().toISOString();

/** What people can do to the feedback that is open, in words. Each resolves when it is safe in the browser's storage. */
export const useFeedbackActions = createSharedComposable(() => {
  const store = useFeedback();
  const session = useSession();
  const outbox = useOutbox();
  const sitting = useSitting();
  const speech = useSpeechSettings();
  const languageOf = (transcript: Remark['transcript']): string =>
    transcript?.language ?? speech.languageIn(store.work!.course);
  const author = (): { id: string; name: string } => ({ id: session.person!.id, name: session.person!.name });

  /** Does something that can be undone. */
  async function act(label: string, change: Change, undo?: Change): Promise<void> {
    const submission = store.work!.id;
    const back = undo ?? (store.feedback && inverseOf(store.feedback, change));
    await outbox.add(submission, change);
    if (back) sitting.remember({ submission, label, undo: back, redo: change });
  }

  return {
    /** Names its work, since the desk may show the next one by the time the take is ready. */
    async make(submission: string, parts: NewRemarkParts): Promise<void> {
      const { id, anchor, kind, content, sound = null, draft = null, edit = null, file = null, instead } = parts;
      if (sound) rememberSound(sound);
      await outbox.add(submission, {
        type: 'remark',
        remark: id,
        author: author(),
        anchor,
        kind,
        content: { ...EMPTY_CONTENT, ...content },
        sound,
        draft,
        edit,
        file,
        madeAt: now(),
      });
      sitting.remember({
        submission,
        label: 'new remark',
        undo: { type: 'aside', remark: id, aside: true },
        redo: { type: 'aside', remark: id, aside: false },
      });
      if (instead) await outbox.add(submission, { type: 'aside', remark: instead, aside: true });
    },
    keepOriginal: (submission: string, remark: string, blob: Blob): Promise<void> =>
      outbox.add(submission, { type: 'original', remark, blob }),
    putAside: ({ id }: Remark): Promise<void> => act('remark put aside', { type: 'aside', remark: id, aside: true }),
    bringBack: ({ id }: Remark): Promise<void> =>
      act('remark brought back', { type: 'aside', remark: id, aside: false }),
    amend: ({ id }: Pick<Remark, 'id'>, change: RemarkChange): Promise<void> =>
      act('change of a remark', { type: 'content', remark: id, change }),
    setKind: ({ id }: Remark, kind: string): Promise<void> =>
      act('kind', { type: 'content', remark: id, change: { kind } }),
    async setSound(remark: Remark, sound: KeptSound, edit: SoundEdit): Promise<void> {
      const before = await keptAgain(remark).catch(() => undefined);
      rememberSound(sound);
      const whole = { kept: [{ start: 0, end: remark.sound!.duration }], levelled: false };
      await act(
        'edit of the sound',
        { type: 'sound', remark: remark.id, sound, edit },
        before && {
          type: 'sound',
          remark: remark.id,
          sound: before,
          edit: remark.edit ?? whole,
          transcript: remark.transcript,
        },
      );
    },
    mend: ({ id, transcript }: Remark, { text, read = true }: { text: string; read?: boolean }): Promise<void> =>
      act('transcript', { type: 'transcript', remark: id, language: languageOf(transcript), text, read }),
    /** An earlier state of the transcript takes the place of what is there. */
    putBack: ({ id }: Remark, { language, text }: { language: string; text: string }): Promise<void> =>
      act('transcript', { type: 'transcript', remark: id, language, text, read: true }),
    speakIn: ({ id, transcript }: Remark, language: string): Promise<void> =>
      act('language', {
        type: 'transcript',
        remark: id,
        language,
        text: transcript?.text ?? '',
        read: transcript?.read ?? true,
      }),
    translate: ({ id }: Remark, language: string, text: string): Promise<void> =>
      act('translation', { type: 'translation', remark: id, language, text }),
    /** A machine's words in another language; the server has to be there for it. */
    async translateByMachine({ id }: Remark, language: string): Promise<void> {
      store.put(await call(setTranslation, { params: { remark: id }, body: { language, text: null } }));
    },
    async importCaptions({ id }: Remark, language: string, content: string): Promise<void> {
      store.put(await call(importCaptions, { params: { remark: id }, body: { language, content } }));
    },
    async listenAgain({ id }: Remark, language?: string): Promise<void> {
      store.put(await call(listenAgain, { params: { remark: id }, body: { language } }));
    },
    score: (criterion: string, level: string | null): Promise<void> =>
      act('score', { type: 'score', criterion, level }),
    givePoints: (question: string, points: number | null): Promise<void> =>
      act('points', { type: 'points', question, points }),
    heard: ({ id }: Remark, finished: boolean): Promise<void> =>
      store.change({ type: 'heard', remark: id, finished, at: now() }),
    take: ({ id }: Remark, taken: boolean): Promise<void> =>
      store.change({ type: 'taken', remark: id, taken, at: now() }),
    async answer(
      { id }: Pick<Remark, 'id'>,
      { text, sound }: { text: string; sound: KeptSound | null },
    ): Promise<void> {
      if (sound) rememberSound(sound);
      await store.change({
        type: 'reply',
        remark: id,
        reply: crypto.randomUUID(),
        author: author(),
        text,
        sound,
        at: now(),
      });
    },
  };
});
