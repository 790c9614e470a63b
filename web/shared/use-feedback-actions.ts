import { createSharedComposable } from '@vueuse/core';
import type { Anchor } from '#core/anchor';
import type { Kind, Remark } from '#contract/remarks';
import type { KeptSound } from './changes.ts';
import { useFeedback } from './feedback-store.ts';
import { useSession } from './session.ts';
import { rememberSound } from './sound-url.ts';

const now = (): string => new Date().toISOString();

/** What people can do to the feedback that is open, in words. Each resolves when it is safe in the browser's storage. */
export const useFeedbackActions = createSharedComposable(() => {
  const store = useFeedback();
  const session = useSession();
  const author = (): { id: string; name: string } => ({ id: session.person!.id, name: session.person!.name });

  return {
    async say(remark: string, anchor: Anchor, kind: Kind, sound: KeptSound): Promise<void> {
      rememberSound(sound);
      await store.change({ type: 'remark', remark, author: author(), anchor, kind, sound, madeAt: now() });
    },
    putAside: ({ id }: Remark): Promise<void> => store.change({ type: 'aside', remark: id, aside: true }),
    bringBack: ({ id }: Remark): Promise<void> => store.change({ type: 'aside', remark: id, aside: false }),
    setKind: ({ id }: Remark, kind: Kind): Promise<void> => store.change({ type: 'kind', remark: id, kind }),
    mend: ({ id, transcript }: Remark, text: string): Promise<void> =>
      store.change({ type: 'transcript', remark: id, language: transcript?.language ?? 'en', text }),
    score: (criterion: string, level: string | null): Promise<void> =>
      store.change({ type: 'score', criterion, level }),
    heard: ({ id }: Remark, finished: boolean): Promise<void> =>
      store.change({ type: 'heard', remark: id, finished, at: now() }),
    async answer({ id }: Remark, { text, sound }: { text: string; sound: KeptSound | null }): Promise<void> {
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
