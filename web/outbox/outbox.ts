import { createGlobalState, useEventListener } from '@vueuse/core';
import { computed, shallowReactive, shallowRef, watch, type ComputedRef, type ShallowRef } from 'vue';
import type { Feedback } from '#contract/submissions';
import { Refused, sentenceOf } from '../session/api.ts';
import type { Change } from '../feedback/changes.ts';
import { sendChange } from '../feedback/send-change.ts';
import { useSession } from '../session/session.ts';
import { parcelStore } from './parcel-store.ts';

/** A change on its way to the server. Parcels are sent one by one, in the order in which they were made. */
export interface Parcel {
  key: number;
  person: string;
  submission: string;
  change: Change;
  /** Why the server will not have it; it stays until the person has seen that. */
  refused?: string;
}

type Listener = (submission: string, change: Change, update: (feedback: Feedback) => Feedback) => void;

const RETRY_SECONDS = [1, 2, 4, 8, 15];

export type OutboxState = 'saved' | 'saving' | 'waiting' | 'signedOut' | 'refused';

export interface Outbox {
  parcels: ShallowRef<Parcel[]>;
  /** `saved`: nothing is left to send; `waiting`: the network or the server is away. */
  state: ComputedRef<OutboxState>;
  changesFor(submission: string): Change[];
  /** How far what was done to one remark is. */
  stateOf(remark: string): OutboxState;
  /** Something about a remark is being made and will be added; until `settle` it counts as on its way. */
  announce(remark: string): void;
  settle(remark: string): void;
  add(submission: string, change: Change): Promise<void>;
  /** Gives up what the server refused. */
  dropRefused(): Promise<void>;
  onSent(listener: Listener): () => void;
}

export const useOutbox = createGlobalState((): Outbox => {
  const session = useSession();
  const parcels = shallowRef<Parcel[]>([]);
  /** Why nothing can be sent at the moment. */
  const obstacle = shallowRef<'waiting' | 'signedOut'>();
  const announced = shallowReactive(new Set<string>());
  const listeners = new Set<Listener>();
  let sending = false;
  let failures = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;

  const waiting = computed(() => parcels.value.filter((parcel) => parcel.refused === undefined));
  const state = computed((): OutboxState => {
    if (waiting.value.length > 0) return obstacle.value ?? 'saving';
    if (parcels.value.length > 0) return 'refused';
    return announced.size > 0 ? 'saving' : 'saved';
  });

  function stateOf(remark: string): OutboxState {
    const own = parcels.value.filter(({ change }) => 'remark' in change && change.remark === remark);
    if (own.some(({ refused }) => refused !== undefined)) return 'refused';
    if (own.length > 0) return obstacle.value ?? 'saving';
    return announced.has(remark) ? 'saving' : 'saved';
  }

  async function load(): Promise<void> {
    parcels.value = (await parcelStore.all()).filter((parcel) => parcel.person === session.person?.id);
    void flush();
  }

  async function add(submission: string, change: Change): Promise<void> {
    const parcel = await parcelStore.add({ person: session.person!.id, submission, change });
    parcels.value = [...parcels.value, parcel];
    void flush();
  }

  async function flush(): Promise<void> {
    if (sending) return;
    sending = true;
    clearTimeout(timer);
    try {
      for (let next = waiting.value[0]; next; next = waiting.value[0]) await send(next);
      failures = 0;
      obstacle.value = undefined;
    } catch (error) {
      obstacle.value = error instanceof Refused && error.problem.status === 401 ? 'signedOut' : 'waiting';
      const pause = RETRY_SECONDS[Math.min(failures++, RETRY_SECONDS.length - 1)]!;
      timer = setTimeout(() => void flush(), pause * 1000);
    } finally {
      sending = false;
    }
  }

  /** @throws where it is worth trying again */
  async function send(parcel: Parcel): Promise<void> {
    try {
      if (await parcelStore.has(parcel)) {
        const update = await sendChange(parcel.submission, parcel.change);
        for (const listener of listeners) listener(parcel.submission, parcel.change, update);
        await parcelStore.delete(parcel);
      }
      parcels.value = parcels.value.filter(({ key }) => key !== parcel.key);
    } catch (error) {
      if (!isFinal(error)) throw error;
      await replace({ ...parcel, refused: sentenceOf(error) });
    }
  }

  async function replace(parcel: Parcel): Promise<void> {
    await parcelStore.put(parcel);
    parcels.value = parcels.value.map((candidate) => (candidate.key === parcel.key ? parcel : candidate));
  }

  async function dropRefused(): Promise<void> {
    for (const parcel of parcels.value) if (parcel.refused !== undefined) await parcelStore.delete(parcel);
    parcels.value = waiting.value;
  }

  watch(
    () => session.person?.id,
    () => void load(),
    { immediate: true },
  );
  useEventListener(window, 'online', () => void flush());
  useEventListener(window, 'beforeunload', (event) => {
    if (waiting.value.length > 0 && obstacle.value) event.preventDefault();
  });

  return {
    parcels,
    state,
    changesFor: (submission) =>
      waiting.value.filter((parcel) => parcel.submission === submission).map((parcel) => parcel.change),
    stateOf,
    announce: (remark) => void announced.add(remark),
    settle: (remark) => void announced.delete(remark),
    add,
    dropRefused,
    onSent(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
  };
});

/** Signing in again, or an hour later, may help with everything but a plain refusal. */
const isFinal = (error: unknown): boolean =>
  error instanceof Refused && error.problem.status < 500 && ![401, 408, 429].includes(error.problem.status);
