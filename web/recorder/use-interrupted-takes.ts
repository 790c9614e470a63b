import { shallowRef, type ShallowRef } from 'vue';
import { useSession } from '../session/session.ts';
import type { TakeKind } from './take-kind.ts';
import { recoveredTake } from './recovered-take.ts';
import { forgetTake, unfinishedTakes, type UnfinishedTake } from './takes.ts';
import type { Take } from './use-recorder.ts';

export interface InterruptedTakes<About> {
  interrupted: ShallowRef<UnfinishedTake<About>[]>;
  look(): Promise<void>;
  keepInterrupted(take: UnfinishedTake<About>): Promise<void>;
  dropInterrupted(take: UnfinishedTake<About>): Promise<void>;
}

/**
 * Takes that a crash, a closed tab or a walk to another page broke off. They are offered, not kept unasked.
 * @param keep what becomes of one that is wanted; resolves when it is safe
 */
export function useInterruptedTakes<About>(
  kind: TakeKind<About>,
  place: () => string,
  keep: (take: Take, about: About) => Promise<void>,
): InterruptedTakes<About> {
  const session = useSession();
  const interrupted = shallowRef<UnfinishedTake<About>[]>([]);

  async function look(): Promise<void> {
    interrupted.value = await unfinishedTakes(session.person!.id, kind, place()).catch(() => []);
  }

  async function keepInterrupted(unfinished: UnfinishedTake<About>): Promise<void> {
    if (unfinished.about === undefined) return;
    const take = await recoveredTake(unfinished);
    if (take) await keep(take, unfinished.about);
    await dropInterrupted(unfinished);
  }

  async function dropInterrupted(unfinished: UnfinishedTake<About>): Promise<void> {
    await forgetTake(unfinished.id).catch(() => undefined);
    interrupted.value = interrupted.value.filter(({ id }) => id !== unfinished.id);
  }

  return { interrupted, look, keepInterrupted, dropInterrupted };
}
