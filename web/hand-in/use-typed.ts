import { keepTyped, readTyped, Typed } from '#contract/typed';
import { StorageSerializers, useDebounceFn, useLocalStorage } from '@vueuse/core';
import { onBeforeUnmount, ref, shallowRef, type Ref, type ShallowRef } from 'vue';
import { call } from '../session/api.ts';
import { Refused } from '../session/refused.ts';
import { useSession } from '../session/session.ts';

const SAVE_MILLISECONDS = 1500;
const RETRY_MILLISECONDS = 5000;

/** Typed here, and not kept by the server yet. */
interface Unsaved {
  html: string;
  /** What the server had when the typing began. */
  over: string | null;
}

export interface TypedWork {
  /** What the editor begins with; another one where another text was chosen. */
  opened: ShallowRef<string | undefined>;
  state: Ref<'loading' | 'saved' | 'saving' | 'waiting' | 'refused' | 'conflict'>;
  /** Why it cannot be kept as it is. */
  refusal: Ref<string | undefined>;
  /** What another window has kept meanwhile. */
  theirs: ShallowRef<Typed | undefined>;
  write(html: string): void;
  /** Resolves when it was tried. */
  save(): Promise<void>;
  choose(which: 'mine' | 'theirs'): Promise<void>;
}

/** A work while it is typed: kept in this browser at once, and on the server soon after. Of two windows neither undoes the other. */
export function useTyped(assignment: string): TypedWork {
  const session = useSession();
  const unsaved = useLocalStorage<Unsaved | null>(`typed:${session.person?.id}:${assignment}`, null, {
    serializer: StorageSerializers.object,
    // Each window has a text of its own before it.
    listenToStorageChanges: false,
  });
  const opened = shallowRef<string>();
  const state: TypedWork['state'] = ref('loading');
  const refusal = ref<string>();
  const theirs = shallowRef<Typed>();
  let known: string | null = null;
  let again: ReturnType<typeof setTimeout> | undefined;
  const params = { assignment };

  function later(deed: () => Promise<void>): void {
    state.value = 'waiting';
    clearTimeout(again);
    again = setTimeout(() => void deed(), RETRY_MILLISECONDS);
  }

  async function load(): Promise<void> {
    // What is typed here is there at once, also without a network.
    if (unsaved.value) opened.value ??= unsaved.value.html;
    try {
      const kept = await call(readTyped, { params });
      known = kept.changedAt;
      opened.value ??= kept.html;
      const mine = unsaved.value;
      if (!mine) state.value = 'saved';
      else if (mine.over === known || mine.html === kept.html) await save();
      else meet(kept);
    } catch {
      later(load);
    }
  }

  function meet(other: Typed): void {
    theirs.value = other;
    state.value = 'conflict';
  }

  async function save(): Promise<void> {
    clearTimeout(again);
    const sent = unsaved.value;
    if (!sent || state.value === 'conflict') return;
    state.value = 'saving';
    refusal.value = undefined;
    try {
      const { changedAt } = await call(keepTyped, { params, body: { html: sent.html, over: known } });
      known = changedAt;
      // What was typed meanwhile is saved with the next.
      const more = unsaved.value?.html !== sent.html;
      unsaved.value = more ? { html: unsaved.value!.html, over: known } : null;
      state.value = 'saved';
      if (more) void saveSoon();
    } catch (failure) {
      if (!(failure instanceof Refused)) return later(save);
      const now = Typed.safeParse(failure.problem.now);
      if (now.success) return meet(now.data);
      state.value = 'refused';
      refusal.value = failure.message;
    }
  }

  const saveSoon = useDebounceFn(save, SAVE_MILLISECONDS);

  async function choose(which: 'mine' | 'theirs'): Promise<void> {
    const other = theirs.value!;
    known = other.changedAt;
    theirs.value = undefined;
    if (which === 'theirs') {
      unsaved.value = null;
      opened.value = other.html;
      state.value = 'saved';
      return;
    }
    unsaved.value = { html: unsaved.value!.html, over: known };
    state.value = 'saved';
    await save();
  }

  void load();
  onBeforeUnmount(() => {
    clearTimeout(again);
    void save();
  });
  return {
    ...{ opened, state, refusal, theirs, save, choose },
    write(html) {
      unsaved.value = { html, over: known };
      void saveSoon();
    },
  };
}
