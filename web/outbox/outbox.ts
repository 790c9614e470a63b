import { createGlobalState, useEventListener } from '@vueuse/core';
import { computed, shallowReactive, shallowRef, watch, type ComputedRef, type ShallowRef } from 'vue';
import { OTHER_PERSON } from '#contract/problem';
import { Refused, sentenceOf, Unreachable } from '../session/api.ts';
import { useSession } from '../session/session.ts';
import { PARCEL_VERSION, readParcel, type Parcel } from './parcel.ts';
import { keepsNothing } from './browser-store.ts';
import { isInMemory, parcelStore } from './parcel-store.ts';
import { subjectOf } from './subjects.ts';

/** @param answer of the server; undefined where another tab has sent the parcel */
type Listener = (parcel: Parcel, answer: unknown) => void;

const RETRY_SECONDS = [1, 2, 4, 8, 15];

const NOT_UNDERSTOOD = 'This was made with an older version of this page and cannot be sent as it is.';

/** After so many failures of the server at one parcel, those that do not depend on it are sent before it. */
const MOST_FAILURES = 3;
/** How often what stepped aside is tried again. */
const AGAIN_SECONDS = 60;

export type OutboxState = 'saved' | 'saving' | 'waiting' | 'signedOut' | 'otherPerson' | 'stuck' | 'refused';

export type NewParcel = Pick<Parcel, 'subject' | 'about' | 'touches' | 'change'>;

export interface Outbox {
  parcels: ShallowRef<Parcel[]>;
  /** `saved`: nothing is left to send; `waiting`: the network or the server is away; `stuck`: the server fails at it. */
  state: ComputedRef<OutboxState>;
  /** What is on its way, of one subject, about one thing. */
  changesFor(subject: string, about: string): unknown[];
  /** How far what was done to one thing is. */
  stateOf(id: string): OutboxState;
  /** Something is being made and will be added; until `settle` it counts as on its way. */
  announce(id: string): void;
  settle(id: string): void;
  add(parcel: NewParcel): Promise<void>;
  /** What the server fails at and why, the oldest first. It is tried again now and then. */
  stuck: ComputedRef<{ parcel: Parcel; reason: string }[]>;
  tryAgain(): void;
  /** Gives up one that was not accepted. */
  discard(parcel: Parcel): Promise<void>;
  /** Sends one once more that was not accepted. */
  sendAgain(parcel: Parcel): Promise<void>;
  /** What stands there now beside what a refused parcel would put there; empty where nobody else was there. */
  compare(parcel: Parcel): Promise<{ what: string; now: string; mine: string }[]>;
  /** Ends a refusal because somebody else was there: with what they wrote, or all the same with this. */
  settleWith(parcel: Parcel, whose: 'theirs' | 'mine'): Promise<void>;
  onSent(listener: Listener): () => void;
}

export const useOutbox = createGlobalState((): Outbox => {
  const session = useSession();
  const parcels = shallowRef<Parcel[]>([]);
  /** Why nothing can be sent at the moment. */
  const obstacle = shallowRef<'waiting' | 'signedOut' | 'otherPerson'>();
  const announced = shallowReactive(new Set<string>());
  const listeners = new Set<Listener>();
  let sending = false;
  let failures = 0;
  let timer: ReturnType<typeof setTimeout> | undefined;

  /** By the keys of parcels. */
  const failed = shallowReactive(new Map<number, { times: number; reason: string }>());

  const waiting = computed(() => parcels.value.filter((parcel) => parcel.refused === undefined));
  const isStuck = ({ key }: Parcel): boolean => (failed.get(key)?.times ?? 0) >= MOST_FAILURES;
  const stuck = computed(() => waiting.value.filter(isStuck));
  /** Those that go on with something that is stuck wait with it. */
  const held = computed(() => {
    const touched = new Set<string>();
    return waiting.value.filter((parcel) => {
      const holds = isStuck(parcel) || parcel.touches.some((id) => touched.has(id));
      if (holds) for (const id of parcel.touches) touched.add(id);
      return holds;
    });
  });
  const next = (): Parcel | undefined => waiting.value.find((parcel) => !held.value.includes(parcel));

  const state = computed((): OutboxState => {
    if (waiting.value.length > 0)
      return obstacle.value ?? (held.value.length < waiting.value.length ? 'saving' : 'stuck');
    if (parcels.value.length > 0) return 'refused';
    return announced.size > 0 ? 'saving' : 'saved';
  });

  function stateOf(id: string): OutboxState {
    const own = parcels.value.filter(({ touches }) => touches.includes(id));
    if (own.some(({ refused }) => refused !== undefined)) return 'refused';
    if (own.length > 0)
      return obstacle.value ?? (own.some((parcel) => held.value.includes(parcel)) ? 'stuck' : 'saving');
    return announced.has(id) ? 'saving' : 'saved';
  }

  async function load(): Promise<void> {
    const person = session.person?.id;
    parcels.value = [];
    if (person === undefined) return;
    const kept = (await Promise.all((await parcelStore.of(person)).map(understood))).filter(
      (parcel) => parcel !== undefined,
    );
    if (session.person?.id !== person) return;
    // What was added while this was read is there already.
    const known = new Set(parcels.value.map(({ key }) => key));
    parcels.value = [...kept.filter(({ key }) => !known.has(key)), ...parcels.value];
    void flush();
  }

  /** A parcel as this version writes it. What was refused by an earlier version may be taken now. */
  async function understood(kept: unknown): Promise<Parcel | undefined> {
    const found = readParcel(kept);
    if (!found) return undefined;
    const { parcel, writtenIn } = found;
    try {
      const parts = (await subjectOf(parcel.subject)).read(parcel.change, writtenIn);
      const carried = { ...parcel, ...parts };
      if (writtenIn < PARCEL_VERSION) await parcelStore.put(carried);
      return carried;
    } catch {
      return { ...parcel, refused: NOT_UNDERSTOOD };
    }
  }

  async function add(parts: NewParcel): Promise<void> {
    const parcel = await parcelStore.add({ ...parts, version: PARCEL_VERSION, person: session.person!.id });
    parcels.value = [...parcels.value, parcel];
    void flush();
  }

  async function flush(): Promise<void> {
    if (sending) return;
    sending = true;
    clearTimeout(timer);
    try {
      for (let parcel = next(); parcel; parcel = next()) await send(parcel);
      failures = 0;
      obstacle.value = undefined;
      if (stuck.value.length > 0) timer = setTimeout(tryAgain, AGAIN_SECONDS * 1000);
    } catch (error) {
      obstacle.value = obstacleOf(error);
      const pause = RETRY_SECONDS[Math.min(failures++, RETRY_SECONDS.length - 1)]!;
      timer = setTimeout(() => void flush(), pause * 1000);
    } finally {
      sending = false;
    }
  }

  /** @throws where it is worth trying again */
  async function send(parcel: Parcel): Promise<void> {
    try {
      const answer = (await parcelStore.has(parcel))
        ? await (await subjectOf(parcel.subject)).send(parcel.about, parcel.change)
        : undefined;
      await parcelStore.delete(parcel);
      failed.delete(parcel.key);
      // In one go: nobody sees it neither on its way nor arrived.
      for (const listener of listeners) listener(parcel, answer);
      parcels.value = parcels.value.filter(({ key }) => key !== parcel.key);
    } catch (error) {
      if (isFinal(error)) return refuse(parcel, error);
      if (isOfAll(error)) throw error;
      // An answer that nobody understands, or code that breaks, is of this parcel alone, and once is enough to know.
      const times = error instanceof Refused ? (failed.get(parcel.key)?.times ?? 0) + 1 : MOST_FAILURES;
      failed.set(parcel.key, { times, reason: sentenceOf(error) });
      if (times < MOST_FAILURES) throw error;
    }
  }

  async function refuse(parcel: Parcel, error: unknown): Promise<void> {
    const now = error instanceof Refused ? error.problem.now : undefined;
    await replace({ ...parcel, refused: sentenceOf(error), ...(now !== undefined && { now }) });
    // What others did is to be seen.
    if (now !== undefined) for (const listener of listeners) listener(parcel, undefined);
  }

  async function compare({ subject, change, now }: Parcel): Promise<{ what: string; now: string; mine: string }[]> {
    return now === undefined ? [] : ((await subjectOf(subject)).compare?.(change, now) ?? []);
  }

  async function settleWith(parcel: Parcel, whose: 'theirs' | 'mine'): Promise<void> {
    if (whose === 'theirs') return discard(parcel);
    const { refused: _refused, now, ...rest } = parcel;
    const change = (await subjectOf(parcel.subject)).over?.(parcel.change, now) ?? parcel.change;
    await replace({ ...rest, change });
    void flush();
  }

  /** Once more each; what fails again steps aside at once. */
  function tryAgain(): void {
    for (const [key, failure] of failed) failed.set(key, { ...failure, times: MOST_FAILURES - 1 });
    void flush();
  }

  async function replace(parcel: Parcel): Promise<void> {
    await parcelStore.put(parcel);
    parcels.value = parcels.value.map((candidate) => (candidate.key === parcel.key ? parcel : candidate));
  }

  async function discard(parcel: Parcel): Promise<void> {
    await parcelStore.delete(parcel);
    failed.delete(parcel.key);
    parcels.value = parcels.value.filter(({ key }) => key !== parcel.key);
  }

  async function sendAgain({ refused: _refused, now: _now, ...parcel }: Parcel): Promise<void> {
    await replace(parcel);
    void flush();
  }

  watch(
    () => session.person?.id,
    () => void load(),
    { immediate: true },
  );
  watch(
    () => session.other,
    (other) => other || tryAgain(),
  );
  useEventListener(window, 'online', tryAgain);
  useEventListener(window, 'beforeunload', (event) => {
    const unsafe = obstacle.value ?? (stuck.value.length > 0 || keepsNothing.value || waiting.value.some(isInMemory));
    const under = waiting.value.length > 0 || (announced.size > 0 && keepsNothing.value);
    if (under && unsafe) event.preventDefault();
  });

  return {
    parcels,
    state,
    changesFor: (subject, about) =>
      waiting.value
        .filter((parcel) => parcel.subject === subject && parcel.about === about)
        .map((parcel) => parcel.change),
    stateOf,
    stuck: computed(() => stuck.value.map((parcel) => ({ parcel, reason: failed.get(parcel.key)!.reason }))),
    tryAgain,
    announce: (id) => void announced.add(id),
    settle: (id) => void announced.delete(id),
    add,
    discard,
    sendAgain,
    compare,
    settleWith,
    onSent(listener) {
      listeners.add(listener);
      return () => listeners.delete(listener);
    },
  };
});

function obstacleOf(error: unknown): 'waiting' | 'signedOut' | 'otherPerson' {
  if (!(error instanceof Refused)) return 'waiting';
  if (error.problem.type === OTHER_PERSON) return 'otherPerson';
  return error.problem.status === 401 ? 'signedOut' : 'waiting';
}

/** Signing in again, or an hour later, may help with everything but a plain refusal. */
const isFinal = (error: unknown): boolean =>
  error instanceof Refused &&
  error.problem.status < 500 &&
  error.problem.type !== OTHER_PERSON &&
  ![401, 408, 429].includes(error.problem.status);

/** Nothing can be sent at the moment: the network is away, or the session is over. All else is of one parcel. */
const isOfAll = (error: unknown): boolean =>
  error instanceof Unreachable ||
  (error instanceof Refused && (error.problem.type === OTHER_PERSON || [401, 429].includes(error.problem.status)));
