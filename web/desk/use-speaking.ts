import type { Anchor } from '#core/anchor';
import type { Kind, Remark } from '#contract/remarks';
import { ref, shallowRef, type Ref } from 'vue';
import type { Take } from '../recorder/use-recorder.ts';
import { useRecorder } from '../recorder/use-recorder.ts';
import { unfinishedTakes, type UnfinishedTake } from '../recorder/takes.ts';
import { usePlayer } from '../shared/player.ts';
import { useSession } from '../shared/session.ts';
import { useFeedbackActions } from '../shared/use-feedback-actions.ts';

interface Options {
  submission: () => string;
  remarks: () => readonly Remark[];
  /** Called with the new remark when it stands in the margin. */
  onSaid: (remark: string) => void;
}

/** From the key to the ribbon: what a take becomes on the desk. */
export function useSpeaking({ submission, remarks, onSaid }: Options) {
  const recorder = useRecorder();
  const player = usePlayer();
  const session = useSession();
  const actions = useFeedbackActions();
  const nextKind: Ref<Kind> = ref('strength');
  const interrupted = shallowRef<UnfinishedTake[]>([]);

  async function speak(anchor: Anchor): Promise<void> {
    await run({ anchor, kind: nextKind.value });
  }

  /** The new take stands in the place of the old one, which is put aside. */
  async function speakAgain(remark: Remark): Promise<void> {
    await run({ anchor: remark.anchor, kind: remark.kind, instead: remark.id });
  }

  async function run(about: { anchor: Anchor; kind: Kind; instead?: string }): Promise<void> {
    player.stop();
    const take = await recorder.record({ type: 'remark', submission: submission(), ...about });
    if (take) await keep(take);
  }

  async function keep(take: Take): Promise<void> {
    if (take.purpose.type !== 'remark') return;
    const { anchor, kind, instead } = take.purpose;
    await actions.say(take.id, anchor, kind, take.sound);
    const old = remarks().find(({ id }) => id === instead);
    if (old) await actions.putAside(old);
    await recorder.kept(take);
    onSaid(take.id);
  }

  /** Takes that a crash or a closed tab broke off are offered, not kept unasked. */
  async function lookForInterrupted(): Promise<void> {
    const takes = await unfinishedTakes(session.person!.id, submission());
    interrupted.value = takes.filter(({ purpose }) => purpose.type === 'remark');
  }

  async function keepInterrupted(unfinished: UnfinishedTake): Promise<void> {
    const take = await recorder.recover(unfinished);
    if (take) await keep(take);
    await dropInterrupted(unfinished);
  }

  async function dropInterrupted(unfinished: UnfinishedTake): Promise<void> {
    await recorder.kept(unfinished);
    interrupted.value = interrupted.value.filter(({ id }) => id !== unfinished.id);
  }

  return { nextKind, speak, speakAgain, interrupted, lookForInterrupted, keepInterrupted, dropInterrupted };
}
