import type { Anchor } from '#core/anchor';
import type { Kind, Remark } from '#contract/remarks';
import { onBeforeUnmount, ref, watch } from 'vue';
import { useInterruptedTakes } from '../recorder/use-interrupted-takes.ts';
import { useRecorder, type Take } from '../recorder/use-recorder.ts';
import { usePlayer } from '../shared/player.ts';
import { useFeedbackActions } from '../shared/use-feedback-actions.ts';

interface Options {
  submission: () => string;
  /** Called with the new remark when it stands in the margin. */
  onSaid: (remark: string) => void;
}

/** From the key to the ribbon: what a take becomes on the desk. */
export function useSpeaking({ submission, onSaid }: Options) {
  const recorder = useRecorder();
  const player = usePlayer();
  const actions = useFeedbackActions();
  const nextKind = ref<Kind>('strength');
  const takes = useInterruptedTakes(submission, 'remark', keep);

  const speak = (anchor: Anchor): Promise<void> => run({ anchor, kind: nextKind.value });

  /** The new take stands in the place of the old one, which is put aside. */
  const speakAgain = ({ id, anchor, kind }: Remark): Promise<void> => run({ anchor, kind, instead: id });

  async function run(about: { anchor: Anchor; kind: Kind; instead?: string }): Promise<void> {
    player.stop();
    const take = await recorder.record({ type: 'remark', submission: submission(), ...about });
    if (take) await keep(take);
  }

  async function keep({ id, purpose, sound }: Take): Promise<void> {
    if (purpose.type !== 'remark') return;
    const { anchor, kind, instead } = purpose;
    await actions.say(purpose.submission, { id, anchor, kind, sound, instead });
    await recorder.kept({ id });
    if (purpose.submission === submission()) onSaid(id);
  }

  // Whoever goes on to another work has said what they wanted to say about this one.
  watch(submission, () => recorder.stop());
  onBeforeUnmount(() => {
    recorder.stop();
    recorder.cool();
  });

  return { nextKind, speak, speakAgain, ...takes };
}
