import type { Anchor } from '#core/anchor';
import { EMPTY_CONTENT, type NewRemark, type Remark } from '#contract/remarks';
import type { Sound } from '#contract/sound';
import { createGlobalState, useLocalStorage } from '@vueuse/core';
import { computed, nextTick, onBeforeUnmount, ref, watch } from 'vue';
import { useDictation } from '../../recorder/use-dictation.ts';
import { useInterruptedTakes } from '../../recorder/use-interrupted-takes.ts';
import { useRecorder, type Preview, type Take } from '../../recorder/use-recorder.ts';
import { useOutbox } from '../../outbox/outbox.ts';
import { usePlayer } from '../../player/player.ts';
import { useSession } from '../../session/session.ts';
import { freshSound } from '../../player/sound-url.ts';
import { useFeedbackActions } from '../../feedback/use-feedback-actions.ts';

interface Options {
  submission: () => string;
  /** Called with the new remark when it stands in the margin. */
  onSaid: (remark: string) => void;
  /** A take was thrown away; `back` keeps it after all. */
  onThrown: (back: () => Promise<void>) => void;
}

interface About {
  anchor: Anchor;
  kind: string;
  picture?: Sound['picture'];
  instead?: string;
}

/** Seconds in which a take that was thrown away can be brought back. */
export const BRING_BACK_SECONDS = 8;

/** Seconds that are counted before the recording begins; 0 where nobody wants that. */
export const useCountdownSeconds = createGlobalState(() => useLocalStorage('countdown', 0));

/** From the key to the ribbon: what a take becomes on the desk. */
export function useSpeaking({ submission, onSaid, onThrown }: Options) {
  const recorder = useRecorder();
  const session = useSession();
  const outbox = useOutbox();
  const player = usePlayer();
  const actions = useFeedbackActions();
  const nextKind = ref('strength');
  const dictation = useDictation();
  const takes = useInterruptedTakes(submission, 'remark', (take) => keep(take));
  const countdownSeconds = useCountdownSeconds();
  /** Seconds that are left before the recording begins. */
  const counting = ref(0);
  let counted: ((go: boolean) => void) | undefined;

  const speak = (anchor: Anchor, picture: Sound['picture'] = null): Promise<void> =>
    run({ anchor, kind: nextKind.value, picture });

  /** The new take stands in the place of the old one, which is put aside. */
  const speakAgain = ({ id, anchor, kind }: Remark): Promise<void> => run({ anchor, kind, instead: id });

  async function run(about: About): Promise<void> {
    player.stop();
    const work = submission();
    if (!(await countDown())) return;
    const ear = dictation.listen();
    const take = await recorder.record({ type: 'remark', submission: work, ...about });
    const draft = ear?.draft() ?? null;
    if (take?.thrown) offerBack(take, await draft);
    else if (take) await keep(take, await draft);
    if (recorder.preview.value) outbox.settle(recorder.preview.value.id);
    recorder.preview.value = undefined;
  }

  /** @returns whether to begin; `hush` in between says no */
  async function countDown(): Promise<boolean> {
    if (counting.value > 0) return false;
    const left = new Promise<boolean>((resolve) => (counted = resolve));
    counting.value = countdownSeconds.value;
    if (counting.value === 0) return true;
    const timer = setInterval(() => {
      if (--counting.value === 0) counted?.(true);
    }, 1000);
    const go = await left;
    clearInterval(timer);
    counting.value = 0;
    return go;
  }

  function hush(): void {
    counted?.(false);
    recorder.stop();
  }

  function offerBack(take: Take, draft: NewRemark['draft']): void {
    const timer = setTimeout(() => void recorder.kept(take), BRING_BACK_SECONDS * 1000);
    onThrown(async () => {
      clearTimeout(timer);
      await keep(take, draft);
    });
  }

  async function keep({ id, purpose, sound, edit, original }: Take, draft: NewRemark['draft'] = null): Promise<void> {
    if (purpose.type !== 'remark') return;
    const { anchor, kind, instead } = purpose;
    outbox.announce(id);
    await actions.make(purpose.submission, { id, anchor, kind, sound, draft, edit, instead });
    if (purpose.submission === submission() && fresh.value?.id !== id) onSaid(id);
    if (original) await actions.keepOriginal(purpose.submission, id, await original);
    outbox.settle(id);
    await recorder.kept({ id });
  }

  /** The remark that is being made of a take: it can be heard, but has no file yet. */
  const fresh = computed((): Remark | undefined => {
    const preview = recorder.preview.value;
    if (preview?.purpose.type !== 'remark' || preview.purpose.submission !== submission()) return undefined;
    return freshRemark(preview, preview.purpose, session.person!);
  });
  watch(fresh, (remark) => {
    if (!remark) return;
    outbox.announce(remark.id);
    onSaid(remark.id);
    void nextTick(() => performance.measure('let-go-to-ribbon', 'let-go'));
  });

  // Whoever goes on to another work has said what they wanted to say about this one.
  watch(submission, hush);
  onBeforeUnmount(() => {
    hush();
    recorder.cool();
  });

  return { nextKind, fresh, prepare: dictation.prepare, speak, speakAgain, hush, counting, ...takes };
}

type RemarkPurpose = Extract<Preview['purpose'], { type: 'remark' }>;

const freshRemark = (
  { id, wav, duration, peaks }: Preview,
  { anchor, kind }: RemarkPurpose,
  author: Remark['author'],
): Remark => ({
  ...EMPTY_CONTENT,
  id,
  author: { id: author.id, name: author.name },
  kind,
  anchor,
  sound: freshSound(id, wav, { duration, peaks, picture: null }),
  edit: null,
  file: null,
  transcript: null,
  translations: [],
  speech: null,
  madeAt: new Date().toISOString(),
  takenAt: null,
  heard: null,
  replies: [],
});
