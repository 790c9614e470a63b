import { shallowRef, type ShallowRef } from 'vue';
import { useSession } from '../session/session.ts';
import { unfinishedTakes, type TakePurpose, type UnfinishedTake } from './takes.ts';
import { useRecorder, type Take } from './use-recorder.ts';

interface InterruptedTakes {
  interrupted: ShallowRef<UnfinishedTake[]>;
  look(): Promise<void>;
  keepInterrupted(take: UnfinishedTake): Promise<void>;
  dropInterrupted(take: UnfinishedTake): Promise<void>;
}

/**
 * Takes that a crash, a closed tab or a walk to another page broke off. They are offered, not kept unasked.
 * @param keep what becomes of one that is wanted; resolves when it is safe
 */
export function useInterruptedTakes(
  submission: () => string,
  type: TakePurpose['type'],
  keep: (take: Take) => Promise<void>,
): InterruptedTakes {
  const recorder = useRecorder();
  const session = useSession();
  const interrupted = shallowRef<UnfinishedTake[]>([]);

  async function look(): Promise<void> {
    const takes = await unfinishedTakes(session.person!.id, submission()).catch(() => []);
    interrupted.value = takes.filter(({ purpose }) => purpose.type === type);
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

  return { interrupted, look, keepInterrupted, dropInterrupted };
}
