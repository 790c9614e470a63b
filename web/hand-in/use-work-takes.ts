import { createEventHook, useLocalStorage, type EventHookOn } from '@vueuse/core';
import { computed, onScopeDispose, ref, shallowRef, type ComputedRef, type Ref, type ShallowRef } from 'vue';
import { z } from 'zod';
import type { Sound } from '#contract/sound';
import { recoveredTake } from '../recorder/recovered-take.ts';
import type { TakeKind } from '../recorder/take-kind.ts';
import { forgetTake, unfinishedTakes } from '../recorder/takes.ts';
import { useRecorder, type Take } from '../recorder/use-recorder.ts';
import { useSession } from '../session/session.ts';

/** A take of a work that is recorded here. Its place is the assignment. */
const WORK_TAKE: TakeKind<{ number: number }> = { type: 'work', about: z.object({ number: z.int() }) };

const COUNT_DOWN = 3;
export interface WorkTake {
  id: string;
  name: string;
  blob: Blob;
  url: string;
  sound: Sound;
  /** It is to be handed in. */
  chosen: boolean;
}

export interface WorkTakes {
  takes: ShallowRef<readonly WorkTake[]>;
  chosen: ComputedRef<readonly WorkTake[]>;
  /** Seconds until it begins; none while nothing is about to. */
  countDown: Ref<number | undefined>;
  /** @param longest seconds after which it ends by itself */
  begin(picture: Sound['picture'], longest: number): Promise<void>;
  /** Also before it has begun. */
  stop(): void;
  rename(id: string, name: string): void;
  choose(id: string, chosen: boolean): void;
  throwAway(id: string): Promise<void>;
  onTaken: EventHookOn<WorkTake>;
}

/** Takes of a work: each is kept in the browser while it is recorded, and until it is handed in or thrown away. */
export function useWorkTakes(assignment: string): WorkTakes {
  const recorder = useRecorder();
  const session = useSession();
  const names = useLocalStorage<Record<string, string>>(`takes:${session.person?.id}:${assignment}`, {});
  const takes = shallowRef<readonly WorkTake[]>([]);
  const countDown = ref<number>();
  const taken = createEventHook<WorkTake>();
  let number = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;
  let longest: ReturnType<typeof setInterval> | undefined;

  /** As it was played or said: only remarks are levelled. */
  async function add({ id, sound, original, purpose }: Take, chosen: boolean): Promise<WorkTake> {
    const blob = (await original) ?? sound.blob;
    const about = WORK_TAKE.about.safeParse(purpose.about);
    number = Math.max(number, about.success ? about.data.number : 0);
    const name = names.value[id] ?? `Take ${about.success ? about.data.number : number}`;
    const { blob: _blob, ...measured } = sound;
    const one = { id, name, blob, url: URL.createObjectURL(blob), sound: measured, chosen };
    takes.value = [...takes.value.map((other) => ({ ...other, chosen: other.chosen && !chosen })), one];
    return one;
  }

  async function look(): Promise<void> {
    const left = await unfinishedTakes(session.person!.id, WORK_TAKE, assignment).catch(() => []);
    for (const one of left.toSorted((a, b) => a.startedAt.localeCompare(b.startedAt))) {
      const take = await recoveredTake(one);
      if (take) await add(take, false);
    }
  }
  const looked = look();

  const count = (from: number): Promise<boolean> =>
    new Promise((resolve) => {
      stopCounting = () => resolve(false);
      const tick = (left: number): void => {
        countDown.value = left;
        if (left === 0) resolve(true);
        else timer = setTimeout(() => tick(left - 1), 1000);
      };
      tick(from);
    });
  let stopCounting: () => void = () => undefined;

  async function begin(picture: Sound['picture'], most: number): Promise<void> {
    if (countDown.value !== undefined || recorder.speaking.value) return;
    await looked;
    try {
      // The count goes on only once the microphone is there.
      if (!(await recorder.warm()) || !(await count(COUNT_DOWN))) return;
      countDown.value = undefined;
      longest = setInterval(() => recorder.seconds() >= most && recorder.stop(), 500);
      const take = await recorder.record(
        { type: WORK_TAKE.type, place: assignment, about: { number: number + 1 } },
        picture,
      );
      if (take?.thrown) await forgetTake(take.id);
      else if (take) await taken.trigger(await add(take, true));
    } finally {
      clearInterval(longest);
      clearTimeout(timer);
      countDown.value = undefined;
      recorder.preview.value = undefined;
      recorder.cool();
    }
  }

  function stop(): void {
    if (countDown.value === undefined) return recorder.stop();
    clearTimeout(timer);
    stopCounting();
  }

  const change = (id: string, to: Partial<WorkTake>): void =>
    void (takes.value = takes.value.map((one) => (one.id === id ? { ...one, ...to } : one)));

  onScopeDispose(() => {
    if (countDown.value !== undefined) stop();
    else if (recorder.speaking.value) recorder.leave();
    for (const { url } of takes.value) URL.revokeObjectURL(url);
  });

  return {
    ...{ takes, countDown, begin, stop, onTaken: taken.on },
    chosen: computed(() => takes.value.filter((one) => one.chosen)),
    rename(id, name) {
      names.value = { ...names.value, [id]: name };
      change(id, { name });
    },
    choose: (id, chosen) => change(id, { chosen }),
    async throwAway(id) {
      await forgetTake(id).catch(() => undefined);
      const { [id]: _gone, ...others } = names.value;
      names.value = others;
      takes.value = takes.value.filter((one) => one.id !== id);
    },
  };
}
