import { onScopeDispose, ref, type Ref } from 'vue';
import type { TakeKind } from './take-kind.ts';
import { useInterruptedTakes, type InterruptedTakes } from './use-interrupted-takes.ts';
import { useRecorder, type Take } from './use-recorder.ts';

export interface SpokenTake<About> extends InterruptedTakes<About> {
  /** Whether this is what is being spoken now. */
  speaking: Ref<boolean>;
  /** Why nothing was kept, as a sentence. */
  problem: Ref<string | null>;
  /** Records until `hush`, and keeps what was said; answers whether something was. */
  speak(about: About): Promise<boolean>;
  hush(): void;
}

/**
 * Speaking while a button is held. Whoever walks away in the middle is offered the take at the next visit.
 * @param keep puts a take where it belongs; resolves when it is safe there
 */
export function useSpokenTake<About>(
  kind: TakeKind<About>,
  place: () => string,
  keep: (take: Take, about: About) => Promise<void>,
): SpokenTake<About> {
  const recorder = useRecorder();
  const speaking = ref(false);
  const problem = ref<string | null>(null);

  async function speak(about: About): Promise<boolean> {
    if (speaking.value) return false;
    speaking.value = true;
    problem.value = null;
    try {
      const take = await recorder.record({ type: kind.type, place: place(), about });
      problem.value = recorder.problem.value;
      if (!take) return false;
      if (!take.thrown) await keep(take, about);
      await recorder.kept(take);
      return !take.thrown;
    } finally {
      recorder.preview.value = undefined;
      speaking.value = false;
    }
  }

  onScopeDispose(() => speaking.value && recorder.leave());

  return {
    ...{ speaking, speak, problem },
    hush: () => recorder.stop(),
    ...useInterruptedTakes(kind, place, keep),
  };
}
