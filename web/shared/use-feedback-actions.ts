import { createSharedComposable } from '@vueuse/core';
import type { Anchor } from '#core/anchor';
import type { Kind, Remark } from '#contract/remarks';
import type { KeptSound } from './changes.ts';
import { useFeedback } from './feedback-store.ts';
import { useOutbox } from './outbox.ts';
import { useSession } from './session.ts';
import { rememberSound } from './sound-url.ts';

interface NewSpokenRemark {
  id: string;
  anchor: Anchor;
  kind: Kind;
  sound: KeptSound;
  /** The remark whose place it takes; that one is put aside. */
  instead?: string | undefined;
}

const now = (): string => new Date().toISOString();

/** What people can do to the feedback that is open, in words. Each resolves when it is safe in the browser's storage. */
export const useFeedbackActions = createSharedComposable(() => {
  const store = useFeedback();
  const session = useSession();
  const outbox = useOutbox();
  const author = (): { id: string; name: string } => ({ id: session.person!.id, name: session.person!.name });

  return {
    /** Names its work, since the desk may show the next one by the time the take is ready. */
    async say(submission: string, remark: NewSpokenRemark): Promise<void> {
      const { id, anchor, kind, sound, instead } = remark;
      rememberSound(sound);
      await outbox.add(submission, {
        type: 'remark',
        remark: id,
        author: author(),
        anchor,
        kind,
        sound,
        madeAt: now(),
      });
      if (instead) await outbox.add(submission, { type: 'aside', remark: instead, aside: true });
    },
    putAside: ({ id }: Remark): Promise<void> => store.change({ type: 'aside', remark: id, aside: true }),
    bringBack: ({ id }: Remark): Promise<void> => store.change({ type: 'aside', remark: id, aside: false }),
    setKind: ({ id }: Remark, kind: Kind): Promise<void> => store.change({ type: 'kind', remark: id, kind }),
    mend: ({ id, transcript }: Remark, text: string): Promise<void> =>
      store.change({ type: 'transcript', remark: id, language: transcript?.language ?? 'en', text }),
    score: (criterion: string, level: string | null): Promise<void> =>
      store.change({ type: 'score', criterion, level }),
    givePoints: (question: string, points: number | null): Promise<void> =>
      store.change({ type: 'points', question, points }),
    heard: ({ id }: Remark, finished: boolean): Promise<void> =>
      store.change({ type: 'heard', remark: id, finished, at: now() }),
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
